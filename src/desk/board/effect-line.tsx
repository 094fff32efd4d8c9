'use client';
/** While gates are edited: in one line, who would gain and lose over the whole membership. One step to all of it. */
import { clsx } from 'clsx';
import { describeForGuests, difference } from '@/core';
import { useDesk } from '../context';
import { useEffectReport } from '../live';

export function EffectLine() {
  const { draft } = useDesk();
  const changes = difference(draft.live.policy, draft.policy).length;
  return changes === 0 ? null : <Line />;
}

function Line() {
  const { data, draft, outline, bench, setBench, setSide } = useDesk();
  const { state } = useEffectReport(draft.policy, data);
  if (bench.kind === 'put live') return null;
  const report = state.kind === 'report' ? state.report : state.kind === 'refused' ? null : state.last;
  const guests = report && describeForGuests(report.guests, outline);
  return (
    <button
      type="button"
      data-testid="effect-line"
      onClick={() => {
        setSide('difference');
        setBench({ kind: 'put live' });
      }}
      className="flex w-full items-center gap-4 border-thin border-t bg-raised px-4 py-1.5 text-left text-[0.8125rem] hover:text-copper"
    >
      <span className="text-quiet">The draft, for everybody:</span>
      {!report && (state.kind === 'refused' ? state.title : 'working it out …')}
      {report && report.places.length === 0 && 'nobody would notice'}
      {report && report.places.length > 0 && (
        <>
          <span className={clsx('truncate', guests ? 'font-semibold' : 'text-quiet')}>
            guests {guests ?? 'notice nothing'}
          </span>
          <span className={report.gains.count > 0 ? 'text-open' : 'text-quiet'}>
            +{report.gains.count} of {report.of} members gain
          </span>
          <span className={report.loses.count > 0 ? 'text-alarm' : 'text-quiet'}>
            −{report.loses.count} lose
          </span>
          <span className="ml-auto underline decoration-thin underline-offset-3">Who and where</span>
        </>
      )}
    </button>
  );
}
