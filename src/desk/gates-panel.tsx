'use client';
/** All gates in order, each as the sentence it is. */
import { clsx } from 'clsx';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { capital, difference, type GateChange, type GateId, keyOfFinding, permits, weightOf } from '@/core';
import { Button } from '@/ui';
import { useDesk } from './context';
import { EDGES, useFindingText, useSetAsides } from './findings';
import { FirstSteps } from './first-steps';
import { legsOf } from './gate-legs';
import { GateMark } from './marks';
import { Panel } from './panel';

export function GatesPanel() {
  const { data, draft, compiled, analysis, setBench, addGate, side } = useDesk();
  const { isAside } = useSetAsides();
  const findings = (analysis.draft?.findings ?? []).filter((one) => !isAside(one));
  const findingText = useFindingText();
  const shown = side === 'live' ? compiled.live : compiled.draft;
  const { policy } = shown;
  const changes = new Map(
    difference(draft.live.policy, draft.policy).flatMap((change) =>
      change.of === 'gate' ? [[idOf(change), change.kind] as const] : [],
    ),
  );
  return (
    <Panel
      title="Gates"
      note={
        side === 'live'
          ? 'As they are live. Choose one to change it in the draft.'
          : 'A visitor must pass every gate over an item. The first one not passed speaks.'
      }
      actions={
        <>
          <Button weight="quiet" onClick={() => setBench({ kind: 'rules' })}>
            For the whole site
          </Button>
          {permits(data.desk, 'gates') && <Button onClick={() => addGate()}>New gate</Button>}
        </>
      }
    >
      <FirstSteps />
      {policy.gates.length === 0 ? (
        <p>
          There are no gates: every published page is open to everyone. Point at a row of the board and choose
          “+ gate” to put the first one up.
        </p>
      ) : (
        <ol className="-mx-2 grid">
          {policy.gates.map((gate, index) => {
            const legs = legsOf(gate, shown);
            const change = side === 'live' ? undefined : changes.get(gate.id);
            return (
              <li key={gate.id} className="group relative border-thin border-b last:border-b-0">
                <button
                  type="button"
                  onClick={() => setBench({ kind: 'gate', gate: gate.id })}
                  className="grid w-full grid-cols-[1.75rem_1fr] rounded-[3px] px-2 py-2.5 pr-12 text-left hover:bg-sunk"
                >
                  <span className={clsx('pt-[3px]', change && 'text-copper')}>
                    <GateMark standing={gate.stance === 'instead' ? 'instead' : 'own'} />
                  </span>
                  <span>
                    <span className="block font-semibold">
                      {capital(legs.what)}
                      {change && (
                        <span className="ml-2 font-normal text-copper text-xs">{BADGES[change]}</span>
                      )}
                    </span>
                    <span className="block">{capital(legs.who)}</span>
                    <span className="block text-quiet">
                      {legs.otherwise === null ? 'Nobody is turned away' : capital(legs.otherwise)}
                    </span>
                    {side !== 'live' &&
                      findings
                        .filter((one) => one.gate === gate.id)
                        .map((finding) => (
                          <span
                            key={keyOfFinding(finding)}
                            className={clsx(
                              'mt-1 block border-l-3 pl-2',
                              EDGES[weightOf(finding)],
                              weightOf(finding) === 'wrong' ? 'text-alarm' : 'text-quiet',
                            )}
                          >
                            {findingText(finding)}
                          </span>
                        ))}
                  </span>
                </button>
                {side !== 'live' && permits(data.desk, 'gates') && (
                  <Order id={gate.id} index={index} count={policy.gates.length} name={legs.what} />
                )}
              </li>
            );
          })}
        </ol>
      )}
    </Panel>
  );
}

const BADGES: Record<GateChange['kind'], string> = {
  added: 'new in the draft',
  changed: 'changed in the draft',
  moved: 'moved in the draft',
  removed: 'removed in the draft',
};

const idOf = (change: GateChange): GateId => (change.kind === 'removed' ? change.before.id : change.after.id);

interface OrderProps {
  readonly id: GateId;
  readonly index: number;
  readonly count: number;
  readonly name: string;
}

/** Moves a gate up or down. */
function Order({ id, index, count, name }: OrderProps) {
  const { draft } = useDesk();
  const move = (by: number) => {
    const gates = [...draft.policy.gates];
    const at = gates.findIndex((gate) => gate.id === id);
    gates.splice(at + by, 0, ...gates.splice(at, 1));
    draft.edit({ ...draft.policy, gates });
  };
  return (
    <span className="absolute top-2 right-1 flex flex-col opacity-0 focus-within:opacity-100 group-hover:opacity-100">
      {index > 0 && (
        <Button
          weight="quiet"
          size="small"
          aria-label={`Move up: ${name}`}
          title="Move up"
          onClick={() => move(-1)}
        >
          <ChevronUp size={16} aria-hidden="true" />
        </Button>
      )}
      {index < count - 1 && (
        <Button
          weight="quiet"
          size="small"
          aria-label={`Move down: ${name}`}
          title="Move down"
          onClick={() => move(1)}
        >
          <ChevronDown size={16} aria-hidden="true" />
        </Button>
      )}
    </span>
  );
}
