'use client';
/** "Keep it so": what somebody gets now, written down as what must stay. */
import { toast } from 'sonner';
import { type Expectation, type ExpectationId, type Expected, type Policy, permits, same } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';

/** A policy in which something more is expected. What is expected already is not expected twice. */
function keepSo(policy: Policy, expected: readonly Expected[]): Policy {
  const known = policy.expectations.map(({ id: _, ...rest }) => rest);
  const added = expected
    .filter((one) => !known.some((other) => same(other, one)))
    .map((one): Expectation => ({ id: crypto.randomUUID() as ExpectationId, ...one }));
  return { ...policy, expectations: [...policy.expectations, ...added] };
}

interface PinProps {
  readonly expected: () => readonly Expected[];
  readonly title: string;
}

export function PinButton({ expected, title }: PinProps) {
  const { data } = useDesk();
  const pin = usePin();
  if (!permits(data.desk, 'gates')) return null;
  return (
    <Button title={title} onClick={() => pin(expected())}>
      Keep it so
    </Button>
  );
}

/** Puts expectations into the draft and says so. */
export function usePin(): (expected: readonly Expected[]) => void {
  const { draft, setScreen } = useDesk();
  return (expected) => {
    const next = keepSo(draft.policy, expected);
    const count = next.expectations.length - draft.policy.expectations.length;
    if (count === 0) {
      toast('That is expected already.');
      return;
    }
    draft.edit(next);
    toast(count === 1 ? 'From now on this is expected.' : `From now on these ${count} things are expected.`, {
      action: {
        label: 'Show',
        onClick: () =>
          setScreen({
            kind: 'findings',
            open: null,
            expectation: count === 1 ? (next.expectations.at(-1)?.id ?? null) : null,
          }),
      },
    });
  };
}
