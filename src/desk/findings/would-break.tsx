'use client';
/** Expectations that the draft breaks, said where it is written. */
import {
  capital,
  describeExpectation,
  describeVerdict,
  type Expectation,
  stands,
  type Verdict,
} from '@/core';
import { useDesk } from '../context';
import { AsLive } from './as-live';
import { Crowd } from './finding-panel';

/** Expectations of the draft with what has become of them; those that are broken. */
export function useBroken(): readonly { readonly expectation: Expectation; readonly verdict: Verdict }[] {
  const { draft, analysis } = useDesk();
  return draft.policy.expectations.flatMap((expectation) => {
    const verdict = analysis.draft?.verdicts.get(expectation.id);
    return verdict && !stands(verdict) ? [{ expectation, verdict }] : [];
  });
}

export function WouldBreak() {
  const { compiled, outline, vocabulary, request, setScreen } = useDesk();
  const broken = useBroken();
  if (broken.length === 0) return null;
  return (
    <ul className="grid gap-2" aria-label="What would be broken">
      {broken.map(({ expectation, verdict }) => (
        <li key={expectation.id} className="border-alarm border-l-3 bg-wash px-3 py-2">
          <button
            type="button"
            className="block text-left hover:text-copper"
            onClick={() => setScreen({ kind: 'findings', open: null, expectation: expectation.id })}
          >
            <span className="block text-alarm text-xs">An expectation is broken</span>
            <span className="block font-semibold">
              {capital(describeExpectation(expectation, outline, vocabulary))}
            </span>
            <span className="block">{describeVerdict(verdict, compiled.draft, request.today)}</span>
          </button>
          {verdict.kind === 'broken' && (
            <div className="mt-1 grid justify-items-start gap-2">
              <Crowd
                of={{ kind: 'expectation', id: expectation.id, items: verdict.items }}
                whom="get something else than is expected today"
                inLine
              />
              <AsLive expectation={expectation} verdict={verdict} />
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}
