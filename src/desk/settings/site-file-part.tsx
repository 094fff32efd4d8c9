'use client';
/** The site as one file: out, and in after a look at what it would do. */
import { type ChangeEvent, useState } from 'react';
import { toast } from 'sonner';
import { capital, counted, keysOf, type Policy } from '@/core';
import type { ImportReport } from '@/services';
import { Button, Download } from '@/ui';
import { ChangeList } from '../changes';
import { useDesk } from '../context';
import { ask } from '../service';

interface Looked {
  readonly name: string;
  readonly file: unknown;
  readonly report: ImportReport;
}

/** Who can be in a file, with what that means where it is taken in. */
const WHO = {
  nobody: {
    says: 'without people',
    note: 'For a copy of the site. People stay as they are where it is taken in.',
    query: '',
  },
  people: {
    says: 'with its people',
    note: 'They choose new passwords where it is taken in, and passphrases have to be set again.',
    query: '?people',
  },
  signIn: {
    says: 'with people who can sign in',
    note: 'Holds what is kept of passwords and passphrases. Whoever has the file can try to guess them: keep it like a key.',
    query: '?people=sign-in',
  },
} as const;

export function SiteFilePart() {
  const { data, draft, reloadSite } = useDesk();
  const [who, setWho] = useState<keyof typeof WHO>('nobody');
  const [looked, setLooked] = useState<Looked | null>(null);
  const [problems, setProblems] = useState<readonly string[]>([]);
  const [busy, setBusy] = useState<string | null>(null);

  const choose = async (event: ChangeEvent<HTMLInputElement>) => {
    const [chosen] = event.target.files ?? [];
    event.target.value = '';
    if (!chosen) return;
    setLooked(null);
    setProblems([]);
    if (chosen.size > LARGEST) {
      setProblems([
        `${chosen.name} has ${Math.ceil(chosen.size / 1_000_000)} MB, and a site file at most ${LARGEST / 1_000_000}. Take large files out of it and upload them by hand.`,
      ]);
      return;
    }
    setBusy('Looking at what it would do …');
    let file: unknown;
    try {
      file = JSON.parse(await chosen.text());
    } catch (error) {
      setBusy(null);
      setProblems([`${chosen.name} is not JSON: ${(error as Error).message}`]);
      return;
    }
    const answer = await ask<{ report: ImportReport }>('POST', 'site-file', { file, basis: null });
    setBusy(null);
    if (answer.ok) setLooked({ name: chosen.name, file, report: answer.value.report });
    else setProblems((answer.body.problems as readonly string[] | undefined) ?? [answer.title]);
  };

  const take = async () => {
    if (!looked) return;
    setBusy('Taking it in …');
    const answer = await ask('POST', 'site-file', { file: looked.file, basis: looked.report.basis });
    setBusy(null);
    if (!answer.ok) {
      setProblems((answer.body.problems as readonly string[] | undefined) ?? [answer.title]);
      return;
    }
    setLooked(null);
    toast.success('The file is taken in, all of it.');
    await Promise.all([reloadSite(), draft.refresh()]);
  };

  return (
    <>
      <h2 className="text-2xl">The site as one file</h2>
      <p className="note mt-1">
        Items, texts, files, gates, audiences, turn-aways and rules as JSON; no keys.
      </p>
      <fieldset className="mt-4 grid gap-1">
        <legend className="sr-only">Who is in the file</legend>
        {keysOf(WHO).map((one) => (
          <label key={one} className="flex items-baseline gap-2">
            <input type="radio" name="who" checked={who === one} onChange={() => setWho(one)} />
            <span>
              {WHO[one].says} <span className="note">{WHO[one].note}</span>
            </span>
          </label>
        ))}
      </fieldset>
      <p className="mt-3">
        <Download href={`/desk/api/site-file${WHO[who].query}`} download>
          Save the site to a file
        </Download>
      </p>
      <h3 className="mt-8 mb-1">Take a file in</h3>
      <p className="note">
        The site becomes what is in the file. People in it are added or changed; nobody is taken away. First
        you see what it would do.
      </p>
      <label className="mt-3 inline-block cursor-pointer rounded-[3px] border border-iron bg-raised px-2.5 py-1 leading-5 focus-within:outline-2 hover:border-copper hover:text-copper">
        Choose a file
        <input
          type="file"
          accept="application/json,.json"
          onChange={(event) => void choose(event)}
          className="sr-only"
        />
      </label>
      {busy && (
        <p role="status" className="mt-3">
          {busy}
        </p>
      )}
      {problems.length > 0 && (
        <div role="alert" className="mt-4 text-alarm">
          <p className="font-semibold">Nothing was taken in.</p>
          <ul className="list-disc pl-5">
            {problems.map((problem) => (
              <li key={problem}>{problem}</li>
            ))}
          </ul>
        </div>
      )}
      {looked && (
        <section aria-label="What the file would do" className="mt-5 grid gap-3">
          <h4 className="font-head text-lg">{looked.name} would do this</h4>
          <Opened opens={looked.report.opens} />
          <Broken expectations={looked.report.expectations} />
          <Lists report={looked.report} />
          {looked.report.changes > 0 && (
            <>
              <h4 className="font-head">Gates and rules</h4>
              <ChangeList before={side(looked.report.before)} after={side(looked.report.after)} />
            </>
          )}
          <div className="flex gap-2">
            <Button weight="main" disabled={busy !== null} onClick={() => void take()}>
              Take it in, and put it live
            </Button>
            <Button weight="quiet" onClick={() => setLooked(null)}>
              Leave it
            </Button>
          </div>
        </section>
      )}
    </>
  );

  function side(policy: Policy) {
    return { policy, vocabulary: { ...data.names, audiences: policy.audiences } };
  }
}

const LARGEST = 100_000_000;
const MOST_OPENED = 30;

/** What would open, and to whom: the first thing to look at. */
/** What the file expects and would not be so. */
function Broken({ expectations }: Pick<ImportReport, 'expectations'>) {
  const broken = expectations.filter(({ stands }) => !stands);
  if (broken.length === 0) return null;
  return (
    <section aria-label="What would be broken">
      <h4 className="font-head text-alarm">{counted(broken.length, 'expectation')} would be broken</h4>
      <ul className="list-disc pl-5">
        {broken.map(({ expected, verdict }) => (
          <li key={expected}>
            {capital(expected)}. <span className="text-quiet">{verdict}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Opened({ opens }: Pick<ImportReport, 'opens'>) {
  if (opens.length === 0) return <p>It opens nothing to anybody.</p>;
  return (
    <section aria-label="What it would open" className="border-alarm border-l-3 pl-3">
      <h4 className="font-head">It would open {counted(opens.length, 'item')}</h4>
      <ul className="mt-1 grid gap-0.5">
        {opens.slice(0, MOST_OPENED).map((one) => (
          <li key={`${one.kind} ${one.title} ${one.to}`}>
            <strong>{one.title}</strong> <span className="text-quiet">({one.kind})</span> to {one.to}
          </li>
        ))}
      </ul>
      {opens.length > MOST_OPENED && <p className="note mt-1">and {opens.length - MOST_OPENED} more</p>}
    </section>
  );
}

function Lists({ report: { items, names, people, changes } }: { readonly report: ImportReport }) {
  const lists = [
    ['Items added', items.added],
    ['Items changed', items.changed],
    ['Items taken away', items.removed],
    ['Names added', names.added],
    ['Names taken away', names.removed],
    ['People added', people?.added ?? []],
    ['People changed', people?.changed ?? []],
  ] as const;
  const there = lists.filter(([, list]) => list.length > 0);
  if (there.length === 0 && changes === 0) return <p>Nothing: the site is like that already.</p>;
  return (
    <dl className="grid gap-1.5">
      {there.map(([title, list]) => (
        <div key={title} className="grid grid-cols-[9rem_1fr] gap-x-3">
          <dt className="text-quiet">
            {title} ({list.length})
          </dt>
          <dd>
            {list.slice(0, 12).join(', ')}
            {list.length > 12 && ' …'}
          </dd>
        </div>
      ))}
    </dl>
  );
}
