/** What somebody has who makes an account by themselves. */
import type { OpenSettings } from '@/services';
import { Pick } from '@/ui';
import { useDesk } from '../context';
import { Field } from '../people';

interface StartsProps {
  readonly starts: OpenSettings['starts'];
  readonly problem: string | undefined;
  readonly onChange: (starts: OpenSettings['starts']) => void;
}

// No id has such a character.
const NONE = '–';

export function StartsPart({ starts, problem, onChange }: StartsProps) {
  const { data } = useDesk();
  const { levels, roles, groups, fields } = data.names;
  const own = fields.filter(({ editable }) => editable);
  const holds = [...starts.roles, ...starts.groups].length + (starts.level === null ? 0 : 1) > 0;
  const any = levels.length + roles.length + groups.length > 0;
  return (
    <>
      {any && (
        <Field
          label="Whoever signs up starts with"
          note={holds ? 'at once, and gates open to it: look at the board as somebody who has that' : ''}
          problem={problem}
        >
          <span className="grid justify-items-start gap-2">
            {levels.length > 0 && (
              <Pick
                label="The level of new members"
                value={starts.level ?? NONE}
                options={[
                  { value: NONE, label: 'no level' },
                  ...levels.map(({ id, name }) => ({ value: id as string, label: name })),
                ]}
                onPick={(level) =>
                  onChange({ ...starts, level: (level === NONE ? null : level) as typeof starts.level })
                }
              />
            )}
            <Several
              label={(name) => `New members have the role ${name}`}
              what="roles"
              all={roles}
              chosen={starts.roles}
              onChange={(chosen) => onChange({ ...starts, roles: chosen as typeof starts.roles })}
            />
            <Several
              label={(name) => `New members are in the group ${name}`}
              what="groups"
              all={groups}
              chosen={starts.groups}
              onChange={(chosen) => onChange({ ...starts, groups: chosen as typeof starts.groups })}
            />
          </span>
        </Field>
      )}
      {own.length > 0 && (
        <Field label="Whoever signs up is asked for" note="and need not say" problem={undefined}>
          <Several
            label={(name) => `Whoever signs up is asked for ${name}`}
            all={own}
            chosen={starts.asks}
            onChange={(chosen) => onChange({ ...starts, asks: chosen as typeof starts.asks })}
          />
        </Field>
      )}
    </>
  );
}

interface SeveralProps {
  /** What they are, where that is not said already. */
  readonly what?: string;
  readonly label: (name: string) => string;
  readonly all: readonly { readonly id: string; readonly name: string }[];
  readonly chosen: readonly string[];
  readonly onChange: (chosen: readonly string[]) => void;
}

function Several({ what, label, all, chosen, onChange }: SeveralProps) {
  if (all.length === 0) return null;
  return (
    <span className="flex flex-wrap gap-x-4 gap-y-1">
      {what && <span className="text-quiet">{what}</span>}
      {all.map(({ id, name }) => (
        <label key={id} className="flex items-baseline gap-1.5">
          <input
            type="checkbox"
            aria-label={label(name)}
            checked={chosen.includes(id)}
            onChange={({ target }) =>
              onChange(target.checked ? [...chosen, id] : chosen.filter((one) => one !== id))
            }
          />
          {name}
        </label>
      ))}
    </span>
  );
}
