'use client';
/** What was found in the draft that shows in what one person gets. */
import { breaksFor, capital, concerns, describeExpectation, type VisitorFacts } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { FoundList } from './found';
import { useSetAsides } from './use-set-asides';

/** Nothing where nothing concerns them. */
export function FoundOfOne({ visitor }: { readonly visitor: VisitorFacts }) {
  const { analysis, compiled, draft, outline, vocabulary, request, setScreen } = useDesk();
  const { isAside } = useSetAsides();
  if (!analysis.draft) return null;
  const { findings, verdicts } = analysis.draft;
  const who = { visitor, request };
  const own = new Set(findings.filter((one) => !isAside(one) && concerns(one, compiled.draft, who)));
  const broken = draft.policy.expectations.filter((one) => {
    const verdict = verdicts.get(one.id);
    return verdict && breaksFor(one, verdict, compiled.draft, who);
  });
  if (own.size === 0 && broken.length === 0) return null;
  return (
    <section aria-label="What was found of them" className="mt-4 grid gap-2">
      <h3>What was found of them, in the draft</h3>
      {broken.length > 0 && (
        <ul className="grid gap-2">
          {broken.map((expectation) => (
            <li
              key={expectation.id}
              className="grid justify-items-start gap-2 border-alarm border-l-3 bg-wash px-3 py-2"
            >
              They get something else than is expected:{' '}
              {capital(describeExpectation(expectation, outline, vocabulary))}.
              <Button
                weight="quiet"
                onClick={() => setScreen({ kind: 'findings', open: null, expectation: expectation.id })}
              >
                In the findings
              </Button>
            </li>
          ))}
        </ul>
      )}
      <FoundList about={(finding) => own.has(finding)} />
    </section>
  );
}
