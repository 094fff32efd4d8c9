'use client';
import { X } from 'lucide-react';
import { capital, type Default, describeWhat, type GateId, KINDS, OPENABLE_KINDS } from '@/core';
import { Button, Pick } from '@/ui';
import { useDesk } from '../context';

/** The gates that new items start with, so that tomorrow's is as protected as yesterday's. */
export function Defaults() {
  const { draft, outline, vocabulary } = useDesk();
  const { policy, edit } = draft;
  const categories = [
    ...new Set([...outline.items.values()].flatMap(({ facts }) => facts?.category ?? [])),
  ].sort();
  const put = (defaults: readonly Default[]) => edit({ ...policy, defaults });
  const kinds = [
    ...OPENABLE_KINDS.map((kind) => ({ value: kind as string, label: `new ${KINDS[kind].many}` })),
    ...categories.map((category) => ({ value: `post ${category}`, label: `new posts in ${category}` })),
  ];
  const gates = policy.gates.map((gate) => ({
    value: gate.id as string,
    label: capital(describeWhat(gate.what, outline, vocabulary)),
  }));
  return (
    <>
      <p className="note">
        A new item is put under the gate, live, in the moment it is made. A gate that describes what it covers
        needs no default: it covers new items by itself.
      </p>
      <ul className="grid gap-2">
        {policy.defaults.map((one, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: defaults have no identity but their place
          <li key={index} className="flex flex-wrap items-center gap-2">
            <Pick
              label="Which new items"
              value={one.category === null ? one.kind : `${one.kind} ${one.category}`}
              options={kinds}
              onPick={(value) => {
                const [kind = 'post', ...rest] = value.split(' ');
                const next = { ...one, kind: kind as Default['kind'], category: rest.join(' ') || null };
                put(policy.defaults.map((other, at) => (at === index ? next : other)));
              }}
            />
            <span>start with the gate over</span>
            <Pick
              label="Which gate"
              value={one.gate as string}
              options={gates}
              onPick={(gate) =>
                put(
                  policy.defaults.map((other, at) =>
                    at === index ? { ...one, gate: gate as GateId } : other,
                  ),
                )
              }
            />
            <Button
              weight="quiet"
              size="small"
              aria-label="Take this default out"
              onClick={() => put(policy.defaults.filter((_, at) => at !== index))}
            >
              <X size={14} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
      <div>
        <Button
          disabled={policy.gates.length === 0}
          onClick={() => {
            const [gate] = policy.gates;
            if (gate) put([...policy.defaults, { kind: 'post', category: null, gate: gate.id }]);
          }}
        >
          New default
        </Button>
      </div>
    </>
  );
}
