'use client';
/** Areas that go: what goes with them is said first. */
import { useEffect, useState } from 'react';
import { counted, listed } from '@/core';
import type { AreaInList, GoingReport } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { type Answer, ask } from '../service';
import { useStep } from './use-areas';

interface ChosenProps {
  readonly areas: readonly AreaInList[];
  readonly onClose: () => void;
}

/** Several that are chosen together. */
export function ChosenAreas({ areas, onClose }: ChosenProps) {
  return (
    <Panel
      title={counted(areas.length, 'area')}
      note={listed(areas.slice(0, 5).map(({ name }) => name)) + (areas.length > 5 ? ' …' : '')}
      onClose={onClose}
      closes="Choose none"
    >
      <TakeAway areas={areas} onGone={onClose} />
    </Panel>
  );
}

/** Takes areas away, after saying what goes with them. */
export function TakeAway({
  areas,
  onGone,
}: {
  readonly areas: readonly AreaInList[];
  readonly onGone: () => void;
}) {
  const { data } = useDesk();
  const step = useStep();
  const [looking, setLooking] = useState(false);
  const [report, setReport] = useState<Answer<GoingReport> | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const pages = areas.map(({ page }) => page).join(' ');
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again when anything was changed
  useEffect(() => {
    setReport(null);
    if (!looking) return;
    const calledOff = new AbortController();
    const asked = { pages: pages.split(' '), look: true };
    ask<GoingReport>('POST', 'areas/away', asked, calledOff.signal).then(setReport, () => undefined);
    return () => calledOff.abort();
  }, [looking, pages, data]);
  const go = async () => {
    const answer = await step('areas/away', { pages: pages.split(' '), look: false });
    if (answer.ok) onGone();
    else setProblem(answer.title);
  };
  return (
    <section
      aria-label="Taking away"
      className="mt-5 grid justify-items-start gap-2 border-thin border-t pt-4"
    >
      {!looking && (
        <Button onClick={() => setLooking(true)}>
          {areas.length === 1 ? 'Take this area away …' : `Take these ${areas.length} away …`}
        </Button>
      )}
      {report && !report.ok && (
        <p role="alert" className="text-alarm">
          {report.title}
        </p>
      )}
      {report?.ok && (
        <>
          <p>
            {counted(report.value.pages, 'page goes', 'pages go')} with all that is on{' '}
            {report.value.pages === 1 ? 'it' : 'them'}, with {areas.length === 1 ? 'its' : 'their'}{' '}
            {areas.length === 1 ? 'group, gate and expectation' : 'groups, gates and expectations'}
            {report.value.links > 0 && `, and ${counted(report.value.links, 'menu link')}`}.{' '}
            {report.value.people > 0 &&
              `${counted(report.value.people, 'person loses', 'people lose')} ${areas.length === 1 ? 'it' : 'them'}; accounts stay.`}
          </p>
          {report.value.asking.length > 0 && (
            <p>
              These gates ask for {areas.length === 1 ? 'its group' : 'their groups'} too, and nobody passes
              them on that account any more: {listed(report.value.asking)}.
            </p>
          )}
          {problem && (
            <p role="alert" className="text-alarm">
              {problem}
            </p>
          )}
          <p className="flex gap-2">
            <Button weight="main" onClick={() => void go()}>
              {areas.length === 1 ? 'Take it away' : 'Take them away'}
            </Button>
            <Button onClick={() => setLooking(false)}>Leave {areas.length === 1 ? 'it' : 'them'}</Button>
          </p>
        </>
      )}
    </section>
  );
}
