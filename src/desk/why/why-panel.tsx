'use client';
/** Why a stand-in gets what they get: the gates in order, the test that failed, what would open it, and what they see. */
import { clsx } from 'clsx';
import { useMemo, useState } from 'react';
import {
  buyingWays,
  byHandFor,
  type Change,
  type CompiledPolicy,
  capital,
  decide,
  describeBuying,
  describeChanges,
  describeDecision,
  describeMet,
  describeTestOfOne,
  explain,
  factsChangedByHand,
  type ItemId,
  isPurchaseOf,
  itemAt,
  keyOfStandIn,
  meantBy,
  nameInContext,
  nameOf,
  nameOfId,
  openers,
  outcomeOf,
  permits,
  pinned,
  placeOf,
  type Scene,
  type StandIn,
  type Step,
  standInFacts,
  type Trace,
  type VisitorFacts,
  withChanges,
  withPurchase,
} from '@/core';
import { Button } from '@/ui';
import { TurnAwayPreview } from '../composer';
import { followingIn, useDesk } from '../context';
import { PinButton } from '../findings';
import { legsOf } from '../gate-legs';
import { GateMark, OutcomeMark } from '../marks';
import { Panel } from '../panel';
import { HandChanges, useGiving } from './hand-changes';
import { MakeSo } from './make-so';

const FIRST_WAYS = 4;

type GateStep = Extract<Step, { kind: 'gate' }>;

export function WhyPanel({ item: id, standIn: key }: { readonly item: ItemId; readonly standIn: string }) {
  const { outline, request, compiled, side, standIns, walk, setBench, addGate } = useDesk();
  const standIn = standIns.find((one) => keyOfStandIn(one) === key);
  const item = itemAt(outline, id);
  if (!item || !standIn) return null;
  const which = side === 'live' ? 'live' : 'draft';
  const policy: CompiledPolicy = compiled[which];
  const facts = standInFacts(standIn);
  const { decision, steps } = explain(policy, id, facts, request);
  const spokenBy = steps.find((step) => step.kind === 'gate' && step.verdict === 'spoke') as
    | GateStep
    | undefined;
  return (
    <Panel
      title={`${nameOf(standIn)} at ${nameInContext(item, outline)}`}
      note={which === 'live' ? 'As it is live' : 'As it is in the draft'}
      onClose={() => setBench({ kind: 'gates' })}
      actions={
        <>
          <PinButton
            title="Nothing goes live any more by which this is otherwise"
            expected={() => pinned(meantBy(standIn), [[id, outcomeOf(decision)]], outline)}
          />
          <Button onClick={() => walk(standIn, item)}>
            Walk there <span className="key">W</span>
          </Button>
        </>
      }
    >
      <p className="flex items-start gap-3 font-head text-lg leading-snug">
        <span className="mt-0.5">
          <OutcomeMark outcome={outcomeOf(decision)} size={22} />
        </span>
        {describeDecision(decision, nameOf(standIn), item, outline)}.
      </p>

      <h3 className="mt-5 mb-2">The gates, in order</h3>
      {steps.length === 0 ? (
        <div className="kept">
          <p>No gate covers {nameInContext(item, outline)}, so it is open to everyone.</p>
          <Button onClick={() => addGate(item)}>Put a gate on it</Button>
        </div>
      ) : (
        <ol className="grid gap-3">
          {steps.map((step) => (
            <StepView
              key={`${step.at.id} ${step.kind === 'gate' ? step.gate.id : ''}`}
              step={step}
              itemId={id}
              facts={facts}
            />
          ))}
        </ol>
      )}

      {decision.kind === 'open' && which === 'draft' && (
        <ShouldBe key="close" item={id} standIn={standIn} open={false} />
      )}
      {decision.kind === 'turned away' && (
        <>
          <Ways item={id} standIn={standIn} policy={policy} />
          {which === 'draft' && <ShouldBe key="open" item={id} standIn={standIn} open />}
          <h3 className="mt-5 mb-2">What they get</h3>
          <TurnAwayPreview turnAway={decision.turnAway} item={item} who={spokenBy?.gate.who ?? null} />
        </>
      )}
    </Panel>
  );
}

interface ShouldBeProps {
  readonly item: ItemId;
  readonly standIn: StandIn;
  readonly open: boolean;
}

/** What makes it so, once somebody says that it should be. */
function ShouldBe({ item, standIn, open }: ShouldBeProps) {
  const { data } = useDesk();
  const [wanted, setWanted] = useState(false);
  const [items, standIns] = useMemo(() => [[item], [standIn]] as const, [item, standIn]);
  if (!permits(data.desk, 'gates')) return null;
  if (!wanted)
    return (
      <Button className="mt-4" onClick={() => setWanted(true)}>
        {open ? 'It should be open' : 'It should be closed'}
      </Button>
    );
  return (
    <>
      <MakeSo items={items} standIns={standIns} open={open} />
      {/* What would open it by a change of the person stands above. */}
      {!open && <HandChanges items={items} standIns={standIns} open={false} />}
    </>
  );
}

interface WaysProps {
  readonly item: ItemId;
  readonly standIn: StandIn;
  readonly policy: CompiledPolicy;
}

/** What would open an item for somebody; worked out once for as long as nothing changes. */
function Ways({ item, standIn, policy }: WaysProps) {
  const { request, makeUp, data } = useDesk();
  const giveByHand = useGiving();
  const [most, setMost] = useState(FIRST_WAYS);
  const facts = standInFacts(standIn);
  const { ways, cut } = useMemo(
    () => openers(policy, item, standInFacts(standIn), request),
    [policy, item, standIn, request],
  );
  const buying = useMemo(
    () =>
      buyingWays(policy, item, standInFacts(standIn), request, {
        onSale: data.onSale,
        following: followingIn(data),
      }),
    [policy, item, standIn, request, data],
  );
  // What follows from it may be otherwise than the one change of a fact: only what opens it is offered to be done.
  const opensByHand = (way: readonly Change[]) => {
    const giving = standIn.kind === 'member' && permits(data.desk, 'people') ? byHandFor(way) : null;
    const after = giving && factsChangedByHand(facts, giving, followingIn(data), request.today);
    return after && decide(policy, item, after, request).kind === 'open' ? giving : null;
  };
  const others = ways.filter((changes) => !buying.some((way) => isPurchaseOf(changes, way)));
  const all = [
    ...buying.map((way) => ({
      text: describeBuying(way, policy.vocabulary),
      tried: () => withPurchase(facts, way.product, followingIn(data), request),
      giving: null,
    })),
    ...others.map((way) => ({
      text: describeChanges(way, facts, policy.vocabulary),
      tried: () => withChanges(facts, way, request, policy.vocabulary),
      giving: opensByHand(way),
    })),
  ];
  return (
    <>
      <h3 className="mt-5 mb-1">What would open it</h3>
      {all.length === 0 ? (
        <p>
          {cut
            ? 'Nothing short was found. There is more to try than is any use to anybody.'
            : 'No change of what is known of them would; only a change of the gates.'}
        </p>
      ) : (
        <ul className="grid gap-1">
          {all.slice(0, most).map(({ text, tried, giving }) => (
            <li key={text} className="flex items-baseline gap-2">
              <span aria-hidden="true" className="text-open">
                •
              </span>
              <span className="flex-1">{capital(text)}</span>
              {giving && (
                <Button
                  weight="quiet"
                  size="small"
                  title={`Change ${nameOf(standIn)} so, at once; can be undone`}
                  aria-label={`Do it: ${text}`}
                  onClick={() => giveByHand([standIn], giving)}
                >
                  Do it
                </Button>
              )}
              <Button
                weight="quiet"
                size="small"
                title={`Put somebody on the board who is like ${nameOf(standIn)}, but for this`}
                aria-label={`Try it: ${text}`}
                onClick={() => makeUp(`${nameOf(standIn).slice(0, 50)}, tried`, tried())}
              >
                Try it
              </Button>
            </li>
          ))}
        </ul>
      )}
      {all.length > most && (
        <Button weight="quiet" onClick={() => setMost(all.length)}>
          {all.length - most} more ways
        </Button>
      )}
      {cut && others.length > 0 && (
        <p className="note mt-1">These are the shortest that were found; there may be more.</p>
      )}
    </>
  );
}

const VERDICTS: Record<Step['verdict'], string> = {
  passed: 'lets by',
  spoke: 'turns away',
  'would speak': 'would turn away too',
  'set aside': 'is set aside here',
};

interface StepViewProps {
  readonly step: Step;
  readonly itemId: ItemId;
  readonly facts: VisitorFacts;
}

function StepView({ step, itemId, facts }: StepViewProps) {
  const { request, setBench, compiled, outline } = useDesk();
  const away = step.verdict === 'spoke' || step.verdict === 'would speak';
  const place = placeOf(itemId);
  // What a gate over a shared section asks of the item it asks of its host.
  const asked = place?.section === step.at.id ? (outline.items.get(place.host) ?? step.at) : step.at;
  const through = step.at.id !== (place?.section ?? itemId) && (
    <span className="text-quiet"> (through {step.at.title})</span>
  );
  if (step.kind === 'unpublished') {
    return (
      <li className="border-alarm border-l-3 pl-3">
        {step.at.title} is not published, so it is missing for everyone{through}
      </li>
    );
  }
  if (step.kind === 'hosts') {
    return (
      <li className={clsx('border-l-3 pl-3', away ? 'border-copper' : 'border-thin')}>
        {away
          ? `Nothing that ${step.at.title} stands on is open to them`
          : `Something that ${step.at.title} stands on is open to them`}
        {through}
      </li>
    );
  }
  const legs = legsOf(step.gate, compiled.draft);
  return (
    <li
      className={clsx(
        'border-l-3 pl-3',
        step.verdict === 'spoke' ? 'border-copper' : away ? 'border-iron border-dotted' : 'border-thin',
        step.verdict === 'set aside' && 'opacity-70',
      )}
    >
      <p className="flex items-start gap-2">
        <span className="mt-[3px]">
          <GateMark
            standing={
              step.verdict === 'set aside' ? 'set aside' : step.gate.stance === 'instead' ? 'instead' : 'own'
            }
          />
        </span>
        <span>
          <button
            type="button"
            className="text-left underline decoration-thin underline-offset-3 hover:text-copper"
            onClick={() => setBench({ kind: 'gate', gate: step.gate.id })}
          >
            {capital(legs.what)}, for {legs.who}
          </button>
          {through} <strong className={away ? 'text-copper' : ''}>{VERDICTS[step.verdict]}</strong>
        </span>
      </p>
      {step.verdict !== 'set aside' && (
        <TraceView trace={step.trace} scene={{ visitor: facts, item: asked, request }} />
      )}
    </li>
  );
}

const TRUTHS = {
  '1': ['✓', 'true', 'text-open'],
  '0': ['?', 'not known', 'text-teaser'],
  '-1': ['✗', 'not true', 'text-alarm'],
} as const;

function TraceView({
  trace,
  scene,
  denied = false,
}: {
  readonly trace: Trace;
  readonly scene: Scene;
  readonly denied?: boolean;
}) {
  const { compiled, side } = useDesk();
  const { vocabulary } = compiled[side === 'live' ? 'live' : 'draft'];
  const { condition } = trace;
  if (condition.kind === 'audience') {
    const [part] = trace.parts;
    const name = nameOfId(vocabulary, 'audience', condition.audience);
    if (!part) return <p className="note">An audience that no longer exists: unknown of everybody.</p>;
    return (
      <div className="mt-1">
        <p className="note">
          {denied && 'not '}the audience {name}
        </p>
        <div className="border-thin border-l pl-2">
          <TraceView trace={part} scene={scene} denied={denied} />
        </div>
      </div>
    );
  }
  if (condition.kind === 'not') {
    const [part] = trace.parts;
    return part ? <TraceView trace={part} scene={scene} denied={!denied} /> : null;
  }
  if (condition.kind === 'test') {
    const truth = denied ? ((0 - trace.truth) as Trace['truth']) : trace.truth;
    const [sign, word, colour] = TRUTHS[`${truth || 0}` as keyof typeof TRUTHS];
    return (
      <p className="mt-1 grid grid-cols-[1rem_1fr] gap-x-1.5 text-[0.8125rem]">
        <span className={clsx('font-bold', colour)} title={word}>
          {sign}
          <span className="sr-only"> {word}:</span>
        </span>
        <span>
          {describeTestOfOne(condition, vocabulary, !denied)}
          <span className="text-quiet"> · met: {describeMet(condition, scene, vocabulary)}</span>
        </span>
      </p>
    );
  }
  if (trace.parts.length === 0) return null;
  const all = (condition.kind === 'all') !== denied;
  return (
    <div className="mt-1">
      {trace.parts.length > 1 && <p className="note">{all ? 'all of' : 'any of'}</p>}
      <div className={trace.parts.length > 1 ? 'border-thin border-l pl-2' : ''}>
        {trace.parts.map((part, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the parts of a condition have no identity but their place
          <TraceView key={index} trace={part} scene={scene} denied={denied} />
        ))}
      </div>
    </div>
  );
}
