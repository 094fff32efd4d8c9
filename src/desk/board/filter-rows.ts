/** The rows that a filter leaves on the board. */
import { type CompiledPolicy, changesAt, foldCase, KINDS, outcomeAt } from '@/core';
import { type BoardFilter, filters, NO_GATE } from '../board-filter';
import type { Row } from './rows';
import type { BoardMatrix } from './use-matrix';

/**
 * Leaves rows out by what their items are, by the gates over them and by what stand-ins get there. Filters that ask for
 * decisions let every row by until the decisions are there.
 */
export function filteredRows(
  rows: readonly Row[],
  filter: BoardFilter,
  shown: CompiledPolicy,
  side: 'draft' | 'live',
  decided: BoardMatrix | null,
): readonly Row[] {
  if (!filters(filter)) return rows;
  const words = foldCase(filter.text).split(/\s+/).filter(Boolean);
  const gets = gettingFilter(filter, side, decided);
  const left = rows.filter(({ item }) => {
    if (filter.kind !== '' && item.kind !== filter.kind) return false;
    const name = foldCase(`${item.title} ${'address' in item ? item.address : ''}`);
    if (!words.every((word) => name.includes(word))) return false;
    const gates = shown.covering.get(item.id) ?? [];
    if (filter.gate === NO_GATE && gates.length > 0) return false;
    if (filter.gate !== '' && filter.gate !== NO_GATE && !gates.some(({ gate }) => gate.id === filter.gate))
      return false;
    const row = decided?.rowOf.get(item.id);
    return gets === null || row === undefined || gets(row);
  });
  return inContext(filter.gets === '' ? left : withoutFollowers(left, shown), shown);
}

const isPart = ({ item }: Row): boolean => KINDS[item.kind].part;

/** Without parts that only follow what they are in, when that is among the rows: they have no gate of their own. */
function withoutFollowers(rows: readonly Row[], { covering }: CompiledPolicy): readonly Row[] {
  const ids = new Set(rows.map(({ item }) => item.id));
  const gatesOver = (id: Row['item']['id']) => (covering.get(id) ?? []).map(({ gate }) => gate.id);
  return rows.filter((row) => {
    const { id, parent } = row.item;
    if (!isPart(row) || parent === null || !ids.has(parent)) return true;
    const above = new Set(gatesOver(parent));
    return gatesOver(id).some((gate) => !above.has(gate));
  });
}

/** Parts that stand alone say what they are in. */
function inContext(rows: readonly Row[], { outline }: CompiledPolicy): readonly Row[] {
  const ids = new Set(rows.map(({ item }) => item.id));
  return rows.map((row) => {
    const parent = row.item.parent === null ? undefined : outline.items.get(row.item.parent);
    const alone = isPart(row) && parent && parent.kind !== 'site' && !ids.has(parent.id);
    return alone ? { ...row, within: parent.title } : row;
  });
}

function gettingFilter(
  { gets, who, other }: BoardFilter,
  side: 'draft' | 'live',
  decided: BoardMatrix | null,
): ((row: number) => boolean) | null {
  if (gets === '' || !decided) return null;
  const { matrix, columnOf } = decided;
  const column = columnOf.get(who);
  const columns = column === undefined ? [...columnOf.values()] : [column];
  if (gets === 'a change') return (row) => columns.some((one) => changesAt(matrix, row, one));
  if (gets === 'unlike') {
    const [a, b] = [column ?? 0, columnOf.get(other) ?? column ?? 0];
    return (row) => outcomeAt(matrix, side, row, a) !== outcomeAt(matrix, side, row, b);
  }
  if (gets === 'more') {
    const [a, b] = [column ?? 0, columnOf.get(other) ?? column ?? 0];
    return (row) => outcomeAt(matrix, side, row, a) === 'open' && outcomeAt(matrix, side, row, b) !== 'open';
  }
  return (row) =>
    columns.some((one) => {
      const outcome = outcomeAt(matrix, side, row, one);
      return gets === 'not open' ? outcome !== 'open' : outcome === gets;
    });
}
