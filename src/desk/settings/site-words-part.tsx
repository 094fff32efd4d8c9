/** What the site is called, and what it says of itself on every page. */
import type { OpenSettings } from '@/services';
import { Input } from '@/ui';
import { Field } from '../people';

interface PartProps {
  readonly site: OpenSettings['site'];
  readonly problems: Readonly<Record<string, string>>;
  readonly onChange: (site: OpenSettings['site']) => void;
}

const TEXTS = [
  { key: 'signIn', label: 'Beside signing in', note: 'in Markdown, as the others here' },
  { key: 'foot', label: 'At the foot of every page', note: 'who you are, where one reaches you' },
  { key: 'missing', label: 'Where nothing is', note: 'the same for what is hidden and what was never there' },
] as const;

export function NamePart({ site, problems, onChange }: PartProps) {
  return (
    <Field label="Name" note="in the head of every page, and in letters" problem={problems['site.name']}>
      <Input
        label="Name of the site"
        value={site.name}
        maxLength={200}
        onChange={({ target }) => onChange({ ...site, name: target.value })}
        className="w-full"
      />
    </Field>
  );
}

export function SiteWordsPart({ site, problems, onChange }: PartProps) {
  return TEXTS.map(({ key, label, note }) => (
    <Field key={key} label={label} note={note} problem={problems[`site.${key}`]}>
      <textarea
        aria-label={label}
        rows={3}
        maxLength={20_000}
        value={site[key]}
        onChange={({ target }) => onChange({ ...site, [key]: target.value })}
        className="w-full rounded-[3px] border border-iron bg-raised px-1.5 py-1 hover:border-copper"
      />
    </Field>
  ));
}
