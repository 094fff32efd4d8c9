'use client';
/** The members of any intersection: in these audiences, and not in those. */
import { clsx } from 'clsx';
import {
  type Audience,
  type AudienceId,
  all,
  capital,
  counted,
  describeWho,
  inAudience,
  not,
  printCondition,
} from '@/core';
import type { PeoplePage } from '@/services';
import { Button } from '@/ui';
import { useDesk } from '../context';
import { useAnswer } from '../use-answer';

/** Which audiences people are to be in, and which not. */
export interface Wanted {
  readonly in: readonly AudienceId[];
  readonly out: readonly AudienceId[];
}

interface IntersectionProps {
  readonly audiences: readonly Audience[];
  readonly wanted: Wanted;
  readonly onChange: (wanted: Wanted) => void;
}

export function Intersection({ audiences, wanted, onChange }: IntersectionProps) {
  const without = (id: AudienceId): Wanted => ({
    in: wanted.in.filter((one) => one !== id),
    out: wanted.out.filter((one) => one !== id),
  });
  const turn = (id: AudienceId) => {
    const rest = without(id);
    if (wanted.in.includes(id)) onChange({ ...rest, out: [...rest.out, id] });
    else if (wanted.out.includes(id)) onChange(rest);
    else onChange({ ...rest, in: [...rest.in, id] });
  };
  const chosen = wanted.in.length + wanted.out.length;
  return (
    <section aria-label="Who is in several" className="mt-6 border-thin border-t pt-4">
      <h3 className="mb-1">Who is in several</h3>
      <p className="note mb-2">Choose once for “in”, again for “not in”, again for neither.</p>
      <div className="flex flex-wrap gap-1.5">
        {audiences.map(({ id, name }) => {
          const side = wanted.in.includes(id) ? 'in' : wanted.out.includes(id) ? 'not in' : null;
          return (
            <button
              key={id}
              type="button"
              onClick={() => turn(id)}
              aria-label={`${name}: ${side ?? 'either'}`}
              className={clsx(
                'rounded-full border px-2.5 py-0.5 leading-5 hover:border-copper',
                side === 'in'
                  ? 'border-ink bg-ink text-paper'
                  : side === 'not in'
                    ? 'border-ink border-dashed text-quiet line-through'
                    : 'border-iron',
              )}
            >
              {name}
            </button>
          );
        })}
      </div>
      {chosen > 0 && <Members wanted={wanted} />}
    </section>
  );
}

function Members({ wanted }: { readonly wanted: Wanted }) {
  const { vocabulary, draft, setScreen } = useDesk();
  const parts = [...wanted.in.map(inAudience), ...wanted.out.map((id) => not(inAudience(id)))];
  const [only] = parts;
  const condition = parts.length === 1 && only ? only : all(...parts);
  const text = printCondition(condition, vocabulary);
  // People are found with the names of the draft as it was saved, so it is asked again once it is.
  const answer = useAnswer<PeoplePage>('people', { condition: text, most: 12 }, draft.version);
  return (
    <div className="mt-3 grid gap-1.5" aria-live="polite" data-testid="intersection">
      <p className="border-copper border-l-3 pl-3 font-head text-[0.95rem]">
        {capital(describeWho(condition, vocabulary))}
      </p>
      {answer && !answer.ok && <p className="text-alarm">{answer.title}</p>}
      {answer?.ok && (
        <>
          <p>
            <strong>{counted(answer.value.count, 'member')}</strong>
            {answer.value.count > 0 && ': '}
            {answer.value.people.map((person, at) => (
              <span key={person.id}>
                {at > 0 && ', '}
                <button
                  type="button"
                  onClick={() => setScreen({ kind: 'person', person: person.id })}
                  className="underline decoration-thin underline-offset-3 hover:text-copper"
                >
                  {person.name}
                </button>
              </span>
            ))}
            {answer.value.count > answer.value.people.length &&
              ` and ${answer.value.count - answer.value.people.length} more`}
          </p>
          {answer.value.count > 0 && (
            <div>
              <Button onClick={() => setScreen({ kind: 'people', text: '', condition: text })}>
                Show them among the people
              </Button>
            </div>
          )}
        </>
      )}
    </div>
  );
}
