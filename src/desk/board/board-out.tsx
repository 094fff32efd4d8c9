'use client';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { Entry, Menu } from '../menu';
import { boardCsv } from './board-table';
import type { Row } from './rows';
import type { BoardMatrix } from './use-matrix';

/** The board as a file or on paper: the rows and visitors that are in view. */
export function BoardOut({
  rows,
  decided,
}: {
  readonly rows: readonly Row[];
  readonly decided: BoardMatrix | null;
}) {
  const { standIns, side, request, setScreen } = useDesk();
  const save = () => {
    if (!decided) return;
    const blob = new Blob([boardCsv(rows, standIns, decided, side)], {
      type: 'text/csv;charset=utf-8',
    });
    const link = document.createElement('a');
    link.href = URL.createObjectURL(blob);
    link.download = `board-${side}-${request.today}.csv`;
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 1000);
  };
  return (
    <Menu
      trigger={
        <Button weight="quiet" size="small" disabled={decided === null}>
          Take out
        </Button>
      }
    >
      <Entry onSelect={save}>These rows as a table (CSV)</Entry>
      <Entry onSelect={() => setScreen({ kind: 'print' })}>These rows on paper</Entry>
    </Menu>
  );
}
