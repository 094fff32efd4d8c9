'use client';
/** What was found about gates, with what shows it and what mends it. */
import { clsx } from 'clsx';
import { capital, describeGate, type Finding, type Gate } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { findingText } from './finding-text';

/** A finding as a sentence. */
export function useFindingText(): (finding: Finding) => string {
  const { outline, vocabulary, draft } = useDesk();
  const { gates, turnAways } = draft.policy;
  const sentenceOf = (gate: Gate) => {
    const { what, who } = describeGate(gate, outline, vocabulary, turnAways);
    return `${capital(what)} open to ${who}`;
  };
  return (finding) => findingText(finding, { outline, gates, sentenceOf });
}

/** What was found about one gate. Nothing where nothing was. */
export function Found({ gate, findings }: { readonly gate: Gate; readonly findings: readonly Finding[] }) {
  const { makeUp, changeGate, setBench } = useDesk();
  const text = useFindingText();
  if (findings.length === 0) return null;
  return (
    <ul className="grid gap-2" aria-label="Found">
      {findings.map((finding) => (
        <li
          key={JSON.stringify(finding)}
          className={clsx(
            'grid justify-items-start gap-2 border-l-3 bg-wash px-3 py-2',
            // What could not be decided is nobody's mistake.
            finding.kind === 'not decided' ? 'border-iron' : 'border-alarm',
          )}
        >
          {text(finding)}
          {finding.kind === 'hidden link' && (
            <Button onClick={() => makeUp('Gets the page, not the link', finding.witness)}>
              Put such a member on the board
            </Button>
          )}
          {finding.kind === 'contradiction' && (
            <Button onClick={() => setBench({ kind: 'gate', gate: finding.other })}>
              Show the other gate
            </Button>
          )}
          {finding.kind === 'case never reached' && (
            <Button onClick={() => changeGate(withoutCase(gate, finding.index))}>Take the case out</Button>
          )}
        </li>
      ))}
    </ul>
  );
}

const withoutCase = (gate: Gate, index: number): Gate => ({
  ...gate,
  otherwise: { ...gate.otherwise, cases: gate.otherwise.cases.toSpliced(index, 1) },
});
