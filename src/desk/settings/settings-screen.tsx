'use client';
/** What the site as a whole is set to, and the site as one file. For owners. */
import { type FormEvent, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { permits } from '@/core';
import type { OpenSettings } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { Field } from '../people';
import { ask } from '../service';
import { HomePart, LanguagePart } from './language-part';
import { LookPart } from './look-part';
import { SiteFilePart } from './site-file-part';
import { NamePart, SiteWordsPart } from './site-words-part';
import { StartsPart } from './starts-part';

const KEEPS: readonly { readonly value: OpenSettings['journal']; readonly label: string }[] = [
  { value: 'off', label: 'nothing' },
  { value: 'counts', label: 'counts alone' },
  { value: 'names', label: 'counts, and the names of members' },
];

const TILLS: Readonly<Record<NonNullable<OpenSettings['given']>['till'], string>> = {
  none: 'This site has no till, so nothing can be bought. It gets one when TRIVET_TILL names its address and TRIVET_TILL_KEYS the keys that both know, at the next start.',
  'stand-in': 'Buyers are sent to the till that stands in for a real one: no money moves.',
  real: 'Buyers are sent to the till that TRIVET_TILL names.',
};

export function SettingsScreen() {
  const { data } = useDesk();
  if (!permits(data.desk, 'everything'))
    return <main className="flex-1 px-8 py-6">Settings are for owners of the site.</main>;
  return (
    <main className="grid min-h-0 flex-1 grid-cols-2 overflow-y-auto">
      <section aria-label="Settings" className="px-8 py-6">
        <h2 className="text-2xl">Settings</h2>
        <SettingsForm />
      </section>
      <section aria-label="The site as a file" className="border-iron border-l bg-raised px-8 py-6">
        <SiteFilePart />
      </section>
    </main>
  );
}

type SignUpSet = OpenSettings['signUp'];

const SIGN_UPS: readonly { readonly value: SignUpSet['who']; readonly label: string }[] = [
  { value: 'anybody', label: 'anybody' },
  { value: 'domains', label: 'mail addresses at these domains' },
  { value: 'invited', label: 'nobody but those who were invited' },
];

interface SignUpProps {
  readonly value: SignUpSet;
  readonly problem: string | undefined;
  readonly onChange: (value: SignUpSet) => void;
}

/** Who may make an account by themselves. */
function SignUp({ value, problem, onChange }: SignUpProps) {
  return (
    <Field
      label="Who may sign up"
      note="whoever is written down in People, or pays for something, has an account in any case"
      problem={problem}
    >
      <span className="flex flex-wrap gap-2">
        <Pick
          label="Who may sign up"
          value={value.who}
          options={SIGN_UPS}
          onPick={(who) => onChange({ ...value, who })}
        />
        {value.who === 'domains' && (
          <Input
            label="Domains of mail addresses"
            placeholder="place.example, other.example"
            value={value.domains.join(', ')}
            onChange={(event) =>
              onChange({
                ...value,
                domains: event.target.value
                  .split(/[\s,]+/)
                  .filter((one, at, all) => one !== '' || at === all.length - 1),
              })
            }
            className="w-64"
          />
        )}
      </span>
    </Field>
  );
}

function SettingsForm() {
  const { reloadSite } = useDesk();
  const [form, setForm] = useState<OpenSettings | null>(null);
  const [homeBefore, setHomeBefore] = useState<OpenSettings['home']>(null);
  const [problems, setProblems] = useState<Readonly<Record<string, string>>>({});
  useEffect(() => {
    ask<OpenSettings>('GET', 'settings').then((answer) => {
      if (answer.ok) {
        setForm(answer.value);
        setHomeBefore(answer.value.home);
      } else setProblems({ form: answer.title });
    });
  }, []);
  const keep = async (event: FormEvent) => {
    event.preventDefault();
    if (!form) return;
    const { given: _, home, signUp, ...chosen } = form;
    const answer = await ask('PUT', 'settings', {
      ...chosen,
      // Where it stays as it is, nobody’s change of it meanwhile is undone.
      ...(home !== homeBefore && { home }),
      signUp: { ...signUp, domains: signUp.domains.filter(Boolean) },
    });
    setProblems(
      answer.ok ? {} : ((answer.body.problems as typeof problems | undefined) ?? { form: answer.title }),
    );
    if (!answer.ok) return;
    setHomeBefore(home);
    toast.success('The settings are kept.');
    await reloadSite();
  };
  const { form: whole } = problems;
  return (
    <form onSubmit={(event) => void keep(event)} className="mt-5 grid max-w-xl gap-5">
      {whole && (
        <p role="alert" className="text-alarm">
          {whole}
        </p>
      )}
      {form && (
        <>
          <NamePart site={form.site} problems={problems} onChange={(site) => setForm({ ...form, site })} />
          <LanguagePart
            language={form.language}
            languages={form.given?.languages ?? []}
            problem={problems.language}
            onChange={(language) => setForm({ ...form, language })}
          />
          <HomePart
            home={form.home}
            problem={problems.home}
            onChange={(home) => setForm({ ...form, home })}
          />
          <SiteWordsPart
            site={form.site}
            problems={problems}
            onChange={(site) => setForm({ ...form, site })}
          />
          <LookPart
            look={form.look}
            name={form.site.name}
            problems={problems}
            onChange={(look) => setForm({ ...form, look })}
          />
          <h3 className="-mb-2 border-thin border-t pt-4 font-head text-lg">Members</h3>
          <SignUp
            value={form.signUp}
            problem={Object.entries(problems).find(([at]) => at.startsWith('signUp'))?.[1]}
            onChange={(signUp) => setForm({ ...form, signUp })}
          />
          <StartsPart
            starts={form.starts}
            problem={problems.starts}
            onChange={(starts) => setForm({ ...form, starts })}
          />
          <h3 className="-mb-2 border-thin border-t pt-4 font-head text-lg">Days</h3>
          <Field label="Time zone" note="by whose clock days begin" problem={problems.timeZone}>
            <Input
              label="Time zone"
              value={form.timeZone}
              maxLength={100}
              onChange={(event) => setForm({ ...form, timeZone: event.target.value })}
              className="w-72"
            />
          </Field>
          <Field label="Of visitors who are turned away, the journal keeps" problem={problems.journal}>
            <Pick
              label="What the journal keeps"
              value={form.journal}
              options={KEEPS}
              onPick={(journal) => setForm({ ...form, journal })}
            />
          </Field>
          <Field label="For so many days" problem={problems.journalDays}>
            <Input
              label="Days that the journal keeps"
              type="number"
              value={Number.isNaN(form.journalDays) ? '' : form.journalDays}
              onChange={(event) => setForm({ ...form, journalDays: event.target.valueAsNumber })}
              className="w-28"
            />
          </Field>
          <Field
            label="Days of grace"
            note="how long a subscription stays open whose renewal does not come through"
            problem={problems.graceDays}
          >
            <Input
              label="Days of grace"
              type="number"
              value={Number.isNaN(form.graceDays) ? '' : form.graceDays}
              onChange={(event) => setForm({ ...form, graceDays: event.target.valueAsNumber })}
              className="w-28"
            />
          </Field>
          <p className="max-w-prose">{TILLS[form.given?.till ?? 'none']}</p>
          <p className="note">What may no longer be kept is forgotten as soon as this is kept.</p>
          <div>
            <Button weight="main" type="submit">
              Keep these settings
            </Button>
          </div>
        </>
      )}
    </form>
  );
}
