/** How the site looks: a picture before its name, and three colours that can be read. */
import { bandOf, COLOURS, type Colours, colourProblems, keysOf } from '@/core';
import type { OpenSettings } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { Field } from '../people';

interface LookProps {
  readonly look: OpenSettings['look'];
  readonly name: string;
  readonly problems: Readonly<Record<string, string>>;
  readonly onChange: (look: OpenSettings['look']) => void;
}

const WHAT: Readonly<Record<keyof Colours, string>> = {
  head: 'The band at the head, and buttons',
  mark: 'Where one is',
  link: 'Links',
};

// No id has such a character.
const NONE = '–';

export function LookPart({ look, name, problems, onChange }: LookProps) {
  const { outline } = useDesk();
  const pictures = [...outline.items.values()].filter(
    (item) => item.kind === 'file' && item.mediaType.startsWith('image/'),
  );
  const wrong = colourProblems(look);
  return (
    <>
      <h3 className="-mb-2 border-thin border-t pt-4 font-head text-lg">How it looks</h3>
      <Field
        label="Picture before the name"
        note="a file of the site that everybody may open"
        problem={problems['look.picture']}
      >
        <Pick
          label="Picture before the name"
          value={look.picture ?? NONE}
          options={[
            { value: NONE, label: 'none' },
            ...pictures.map(({ id, title }) => ({ value: id as string, label: title })),
          ]}
          onPick={(picture) =>
            onChange({
              ...look,
              picture: (picture === NONE ? null : picture) as OpenSettings['look']['picture'],
            })
          }
        />
      </Field>
      <div className="grid gap-2">
        {keysOf(WHAT).map((one) => {
          const problem = wrong.find(({ colour }) => colour === one);
          const { instead = null } = problem ?? {};
          return (
            <div key={one} className="grid gap-1">
              <p className="flex items-center gap-2">
                <input
                  type="color"
                  aria-label={`${WHAT[one]}: colour`}
                  value={/^#[0-9a-f]{6}$/i.test(look[one]) ? look[one] : COLOURS[one]}
                  onChange={({ target }) => onChange({ ...look, [one]: target.value })}
                  className="h-7 w-10 cursor-pointer rounded-[3px] border border-iron bg-raised p-0.5"
                />
                <Input
                  label={`${WHAT[one]}: in digits`}
                  value={look[one]}
                  maxLength={20}
                  aria-invalid={problem ? true : undefined}
                  onChange={({ target }) => onChange({ ...look, [one]: target.value.trim() })}
                  className="w-24"
                />
                {WHAT[one]}
              </p>
              {problem && (
                <p role="alert" className="text-alarm">
                  {problem.message}{' '}
                  {instead !== null && (
                    <Button onClick={() => onChange({ ...look, [one]: instead })}>Take {instead}</Button>
                  )}
                </p>
              )}
            </div>
          );
        })}
      </div>
      {wrong.length === 0 && <Sample look={look} name={name} />}
    </>
  );
}

/** The head of a page in these colours. */
function Sample({ look, name }: { readonly look: OpenSettings['look']; readonly name: string }) {
  const { high, ink } = bandOf(look.head);
  return (
    <div aria-hidden="true" className="overflow-hidden rounded-[3px] border border-iron">
      <p
        className="flex items-baseline justify-between gap-4 px-4 py-3"
        style={{ background: `linear-gradient(to left, ${high}, ${look.head} 60%)`, color: ink }}
      >
        <strong className="truncate">{name}</strong>
        <span style={{ borderBottom: `2px solid ${look.mark}` }}>Home</span>
      </p>
      <p
        className="px-4 py-2"
        style={{ background: '#f8fafb', color: look.link, textDecoration: 'underline' }}
      >
        A link in a text
      </p>
    </div>
  );
}
