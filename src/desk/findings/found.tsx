'use client';
/** What was found about gates, with what shows it and what mends it. */
import { clsx } from 'clsx';
import {
  type CompiledPolicy,
  describeFinding,
  type Finding,
  type Gate,
  keyOfFinding,
  type Policy,
  permits,
  weightOf,
} from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { useSetAsides } from './use-set-asides';

/** A finding as a sentence. */
export function useFindingText(): (finding: Finding) => string {
  const { compiled, request } = useDesk();
  return (finding) => describeFinding(finding, compiled.draft, request.today);
}

/** What was found about one gate. Nothing where nothing was. */
export const Found = ({ gate }: { readonly gate: Gate }) => (
  <FoundList about={(finding) => finding.gate === gate.id} />
);

/** What was found about something and not set aside. */
export function FoundList({ about }: { readonly about: (finding: Finding) => boolean }) {
  const { analysis, setScreen } = useDesk();
  const { isAside } = useSetAsides();
  const text = useFindingText();
  const findings = (analysis.draft?.findings ?? []).filter((one) => about(one) && !isAside(one));
  if (findings.length === 0) return null;
  return (
    <ul className="grid gap-2" aria-label="Found">
      {findings.map((finding) => (
        <li
          key={keyOfFinding(finding)}
          className={clsx(
            'grid justify-items-start gap-2 border-l-3 bg-wash px-3 py-2',
            EDGES[weightOf(finding)],
          )}
        >
          {text(finding)}
          <span className="flex flex-wrap gap-2">
            <Mending finding={finding} />
            <Button
              weight="quiet"
              onClick={() => setScreen({ kind: 'findings', open: keyOfFinding(finding), expectation: null })}
            >
              In the findings
            </Button>
          </span>
        </li>
      ))}
    </ul>
  );
}

// What could not be decided is nobody's mistake.
export const EDGES = {
  wrong: 'border-alarm',
  risk: 'border-copper',
  idle: 'border-iron',
  open: 'border-thin',
} as const satisfies Record<ReturnType<typeof weightOf>, string>;

/** What can be done about a finding at a click. */
export function Mending({ finding }: { readonly finding: Finding }) {
  const { data, makeUp, compiled, draft, setBench, setScreen } = useDesk();
  const mended = permits(data.desk, 'gates') ? mendedBy(finding, compiled.draft) : null;
  return (
    <>
      {'witness' in finding && (
        <Button onClick={() => makeUp(NAMES[finding.kind], finding.witness.visitor)}>
          Put such a visitor on the board
        </Button>
      )}
      {finding.kind === 'contradiction' && (
        <Button onClick={() => setBench({ kind: 'gate', gate: finding.other })}>Show the other gate</Button>
      )}
      {'course' in finding && (
        <Button onClick={() => setScreen({ kind: 'site', item: finding.course })}>Show the course</Button>
      )}
      {finding.kind === 'audiences alike' && (
        <Button onClick={() => setScreen({ kind: 'audiences', audience: finding.audience })}>
          Show the audience
        </Button>
      )}
      {finding.kind === 'audiences unused' && (
        <Button onClick={() => setScreen({ kind: 'audiences', audience: null })}>Go to the audiences</Button>
      )}
      {finding.kind === 'names alike' && (
        <Button onClick={() => setScreen({ kind: 'names' })}>Go to the names</Button>
      )}
      {finding.kind === 'product opens nothing' && (
        <Button onClick={() => setScreen({ kind: 'shop', product: finding.product })}>
          Show the product
        </Button>
      )}
      {mended && <Button onClick={() => draft.edit(mended.policy)}>{mended.label}</Button>}
    </>
  );
}

/** How whoever shows a finding is called on the board. */
const NAMES: Readonly<Record<Extract<Finding, { witness: unknown }>['kind'], string>> = {
  'led astray': 'Is led astray',
  'step to a closed door': 'Is offered a closed door',
  'hidden link': 'Gets the page, not the link',
  'opened by instead': 'Gets in by “instead”',
  'left open': 'Gets what is left out',
  'exact level': 'Above the level',
  'opens by itself': 'Passes by and by',
  'gets nothing': 'Gets nothing at all',
  'never past': 'Never gets past it',
};

/** The draft with a finding mended, where that takes one change of which there is no doubt. */
function mendedBy(
  finding: Finding,
  { policy }: CompiledPolicy,
): { readonly label: string; readonly policy: Policy } | null {
  const change = (label: string, mend: (gate: Gate) => Gate) => ({
    label,
    policy: { ...policy, gates: policy.gates.map((one) => (one.id === finding.gate ? mend(one) : one)) },
  });
  switch (finding.kind) {
    case 'case never reached':
      return change('Take the case out', (gate) => ({
        ...gate,
        otherwise: { ...gate.otherwise, cases: gate.otherwise.cases.toSpliced(finding.index, 1) },
      }));
    case 'can be simpler':
      return change('Say it so', (gate) => ({ ...gate, who: finding.who }));
    case 'changes nothing':
    case 'set aside':
      return {
        label: 'Take the gate out',
        policy: { ...policy, gates: policy.gates.filter(({ id }) => id !== finding.gate) },
      };
    default:
      return null;
  }
}
