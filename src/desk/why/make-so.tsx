'use client';
/** Make it so: the few changes after which somebody gets what they should, each with everything else that it would change. */
import { useMemo, useState } from 'react';
import { toast } from 'sonner';
import {
  capital,
  counted,
  describeExpectation,
  describeForGuests,
  describeGate,
  describeWho,
  type Gate,
  type GateId,
  type ItemId,
  type Proposal,
  type ProposalKind,
  proposalsFor,
  type StandIn,
  standInFacts,
  whomTheyCanBe,
} from '@/core';
import type { EffectBetween } from '@/services';
import { Button, Pick } from '@/ui';
import { useDesk } from '../context';
import { CrowdNames } from '../crowd';
import { useBreaks } from '../findings';
import { useAnswer } from '../use-answer';

interface MakeSoProps {
  readonly items: readonly ItemId[];
  readonly standIns: readonly StandIn[];
  /** Whether they are to be open to them. */
  readonly open: boolean;
}

/** The changes of the gates after which some visitors get some items, or get none of them. */
export function MakeSo({ items, standIns, open }: MakeSoProps) {
  const { draft, compiled, request, vocabulary } = useDesk();
  const [at, setAt] = useState('0');
  const choices = useMemo(
    () => whomTheyCanBe(standIns, vocabulary, request),
    [standIns, vocabulary, request],
  );
  const whom = choices[Number(at)] ?? choices[0];
  const proposals = useMemo(
    () =>
      whom
        ? proposalsFor(compiled.draft, {
            cells: items.flatMap((item) =>
              standIns.map((standIn) => ({ item, visitor: standInFacts(standIn) })),
            ),
            open,
            whom,
            request,
            newId: () => crypto.randomUUID() as GateId,
          })
        : [],
    [whom, items, standIns, open, compiled.draft, request],
  );
  return (
    <section aria-label="Make it so" className="mt-5">
      <h3 className="mb-1">{open ? 'Open it' : 'Close it'}</h3>
      <p className="flex items-center gap-2">
        <span className="text-quiet">to</span>
        <Pick
          label="For whom"
          value={String(choices[Number(at)] ? at : 0)}
          options={choices.map((choice, place) => ({
            value: String(place),
            label: describeWho(choice, vocabulary),
          }))}
          onPick={setAt}
          className="min-w-0"
        />
      </p>
      {proposals.length === 0 ? (
        <p className="mt-2">
          No change of the gates makes it so. What is not published is missing for everybody.
        </p>
      ) : (
        // What was counted for others is not shown for these.
        <Proposals key={`${at} ${draft.version}`} proposals={proposals} />
      )}
    </section>
  );
}

/** The smallest effect first. */
function Proposals({ proposals }: { readonly proposals: readonly Proposal[] }) {
  const { data, draft, outline, vocabulary, setBench } = useDesk();
  const policies = useMemo(() => proposals.map(({ policy }) => policy), [proposals]);
  const breaks = useBreaks(policies);
  const answer = useAnswer<{ readonly effects: readonly EffectBetween[] }>(
    'effect/between',
    { before: draft.policy, after: policies },
    data,
  );
  const effects = answer?.ok ? answer.value.effects : [];
  const take = ({ policy, gates: [gate] }: Proposal) => {
    draft.edit(policy);
    toast('It is so in the draft.', { action: { label: 'Undo', onClick: draft.undo } });
    if (gate) setBench({ kind: 'gate', gate: gate.id });
  };
  const ordered = proposals
    .map((proposal, place) => ({ proposal, effect: effects[place], broken: breaks?.[place] ?? [] }))
    .toSorted((a, b) => sizeOf(a.effect) - sizeOf(b.effect));
  return (
    <ul className="mt-3 grid gap-4">
      {ordered.map(({ proposal, effect, broken }) => {
        const guests = effect && describeForGuests(effect.guests, outline);
        return (
          <li key={proposal.kind} className="grid justify-items-start gap-1 border-iron border-l-3 pl-3">
            <span className="text-quiet">{HOW[proposal.kind]}</span>
            {proposal.gates.map((gate) => (
              <GateSaid key={gate.id} gate={gate} />
            ))}
            {answer && !answer.ok && <span className="text-alarm">{answer.title}</span>}
            {effect ? (
              <span className="text-[0.8125rem]">
                <Side sign="+" word="gain" colour="text-open" crowd={effect.gains} />{' '}
                <Side sign="−" word="lose" colour="text-alarm" crowd={effect.loses} />
                {guests && <span className="block">Guests {guests}.</span>}
              </span>
            ) : (
              <span className="note">Counting …</span>
            )}
            {broken.map((expectation) => (
              <span key={expectation.id} className="text-alarm">
                Breaks what is expected: {describeExpectation(expectation, outline, vocabulary)}.
              </span>
            ))}
            <Button onClick={() => take(proposal)}>Take it into the draft</Button>
          </li>
        );
      })}
    </ul>
  );
}

const sizeOf = (effect: EffectBetween | undefined): number =>
  effect ? effect.gains.count + effect.loses.count : 0;

interface SideProps {
  readonly sign: string;
  readonly word: string;
  readonly colour: string;
  readonly crowd: EffectBetween['gains'];
}

const Side = ({ sign, word, colour, crowd }: SideProps) => (
  <span className="block">
    <strong className={crowd.count > 0 ? colour : 'text-quiet'}>
      {sign}
      {counted(crowd.count, 'member')} {crowd.count === 1 ? `${word}s` : word}
    </strong>
    {crowd.count > 0 && (
      <>
        : <CrowdNames crowd={crowd} most={3} />
      </>
    )}
  </span>
);

const HOW: Readonly<Record<ProposalKind, string>> = {
  'let in everywhere': 'One more way to pass, wherever these gates stand',
  'let in here': 'A gate over just that, which sets the others aside',
  'leave out': 'Leave it out of what these gates cover, for everybody',
  'keep out everywhere': 'One more thing that is asked, wherever this gate stands',
  'keep out here': 'A gate over just that',
};

function GateSaid({ gate }: { readonly gate: Gate }) {
  const { draft, outline, vocabulary } = useDesk();
  const { what, who } = describeGate(gate, outline, vocabulary, draft.policy.turnAways);
  return (
    <span className="font-semibold">
      {capital(what)}, for {who}
    </span>
  );
}
