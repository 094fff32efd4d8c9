/** What language the site is in, and which page is its first. */
import { decide, guest } from '@/core';
import type { OpenSettings } from '@/services';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { Field } from '../people';

interface LanguageProps {
  readonly language: string;
  readonly languages: NonNullable<OpenSettings['given']>['languages'];
  readonly problem: string | undefined;
  readonly onChange: (language: string) => void;
}

// No language is called so.
const OTHER = '–';

export function LanguagePart({ language, languages, problem, onChange }: LanguageProps) {
  const spoken = languages.some(({ tag }) => tag === language);
  return (
    <Field
      label="Language"
      note={
        spoken
          ? 'of your pages, and of what Trivet says on them: “Sign in”, dates, letters'
          : 'a tag like “fr” or “pt-BR”; what Trivet itself says is in English as long as it does not speak it'
      }
      problem={problem}
    >
      <span className="flex flex-wrap gap-2">
        <Pick
          label="Language"
          value={spoken ? language : OTHER}
          options={[
            ...languages.map(({ tag, name }) => ({ value: tag, label: name })),
            { value: OTHER, label: 'another' },
          ]}
          onPick={(tag) => onChange(tag === OTHER ? '' : tag)}
        />
        {!spoken && (
          <Input
            label="Language tag"
            value={language}
            maxLength={35}
            onChange={({ target }) => onChange(target.value)}
            className="w-28"
          />
        )}
      </span>
    </Field>
  );
}

interface HomeProps {
  readonly home: OpenSettings['home'];
  readonly problem: string | undefined;
  readonly onChange: (home: OpenSettings['home']) => void;
}

const NONE = '–';

export function HomePart({ home, problem, onChange }: HomeProps) {
  const { outline, compiled, request } = useDesk();
  const pages = [...outline.items.values()].filter((item) => item.kind === 'page' && item.published);
  const page = home === null ? undefined : outline.items.get(home);
  const moves = page?.kind === 'page' && page.address !== '/';
  const closed = page && decide(compiled.live, page.id, guest, request).kind !== 'open';
  return (
    <Field label="First page" note="what is at the site’s own address" problem={problem}>
      <Pick
        label="First page"
        value={home ?? NONE}
        options={[
          ...(home === null ? [{ value: NONE as string, label: 'none' }] : []),
          ...pages.map(({ id, title }) => ({ value: id as string, label: title })),
        ]}
        onPick={(id) => onChange(id === NONE ? null : (id as NonNullable<OpenSettings['home']>))}
      />
      {moves && (
        <p className="note">
          It moves from {page.address} to /, and {page.address} leads there. The first page until now gets an
          address made of its title.
        </p>
      )}
      {closed && <p className="text-alarm">Guests don’t get “{page.title}”: its gates stay as they are.</p>}
    </Field>
  );
}
