'use client';
/** Taking in what stands somewhere else: where it is, how it is to come in, and everything that would come of it. */
import { type ReactNode, useEffect, useState } from 'react';
import { counted, isAddressed } from '@/core';
import type { TakingReport } from '@/services';
import { Button, Pick, Tick } from '@/ui';
import { useDesk } from '../context';
import { DoneLately } from '../done-lately';
import { Field } from '../people';
import { ask } from '../service';
import { ChooseSource } from './choose-source';
import { Found } from './found';
import { type Step, type Taking, takeBack, useTaking } from './use-taking';

export function TakingScreen() {
  const { setScreen } = useDesk();
  const taking = useTaking();
  const { step, report, problem } = taking;
  const idle = step.kind === 'nothing';
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[27rem_minmax(0,1fr)]">
      <div className="grid min-h-0 content-start gap-5 overflow-y-auto border-iron border-r bg-raised px-6 py-5">
        <header>
          <h2 className="text-2xl">Take in</h2>
          <p className="note">
            What stands somewhere else: a folder of Markdown or HTML, or a site on the web. Nothing of it is
            on the site until you say so below.
          </p>
        </header>
        {idle && <ChooseSource taking={taking} />}
        {!idle && step.kind !== 'looked' && <UnderWay step={step} onStop={taking.stop} />}
        {problem && (
          <p role="alert" className="text-alarm">
            {problem}
          </p>
        )}
        {step.kind === 'looked' && !report && (
          <p>
            <Button onClick={taking.leave}>Choose something else</Button>
          </p>
        )}
        {report && (
          <HowItComes
            taking={taking}
            report={report}
            busy={step.kind !== 'looked'}
            onDone={() => setScreen({ kind: 'site', item: null })}
          />
        )}
        {idle && <Lately />}
      </div>
      {report ? (
        <Found report={report} />
      ) : (
        <section aria-label="What would come of it" className="min-h-0 overflow-y-auto px-8 py-6">
          <h3 className="font-head text-lg">What comes of it</h3>
          <ul className="note mt-2 grid max-w-prose list-disc gap-1.5 pl-5">
            <li>Folders become the tree of pages; links between pages, pictures and papers come along.</li>
            <li>
              Between lines of three dashes a text can say its title, date, tags, category, author, address,
              parent and summary, and that it is a draft.
            </li>
            <li>Other spellings of an address, like /about.html, lead to where the page is now.</li>
            <li>What can’t be kept is listed here before anything is made, with why.</li>
            <li>It comes in as one step, and one step takes it back.</li>
          </ul>
        </section>
      )}
    </main>
  );
}

function UnderWay({ step, onStop }: { readonly step: Step; readonly onStop: () => void }) {
  const { says, part } = inWords(step);
  return (
    <div className="grid gap-2" role="status">
      <p>{says}</p>
      <progress
        className="h-2 w-full accent-copper"
        max={1}
        {...(part !== null && { value: part })}
        aria-label={says}
      />
      <p>
        <Button onClick={onStop}>Stop</Button>
      </p>
    </div>
  );
}

function inWords(step: Step): { readonly says: string; readonly part: number | null } {
  switch (step.kind) {
    case 'packing':
      return { says: `Packing ${counted(step.files, 'file', 'files')} …`, part: null };
    case 'sending':
      return { says: `Sending it: ${Math.round(step.part * 100)} % …`, part: step.part };
    case 'working': {
      if (step.making) return { says: 'Putting it on the site …', part: null };
      const { progress } = step;
      if (!progress) return { says: 'Looking …', part: null };
      const { what, done, of } = progress;
      if (what === 'sitemap')
        return { says: `Reading the sitemap: ${counted(done, 'address', 'addresses')} so far …`, part: null };
      return { says: `Reading ${what}: ${done} of ${of} …`, part: of === 0 ? null : done / of };
    }
    case 'nothing':
    case 'looked':
      return { says: '', part: null };
    default:
      return step satisfies never;
  }
}

// No id has such a character.
const NONE = '–';

interface HowProps {
  readonly taking: Taking;
  readonly report: TakingReport;
  readonly busy: boolean;
  readonly onDone: () => void;
}

function HowItComes({ taking, report, busy, onDone }: HowProps) {
  const { outline } = useDesk();
  const { wishes, wish } = taking;
  const pages = [...outline.items.values()].filter((item) => item.kind === 'page' && isAddressed(item));
  const menus = [...outline.items.values()].filter(({ kind }) => kind === 'menu');
  const hasFirst = report.first !== null && wishes.above === outline.root;
  return (
    <div className="grid gap-4">
      <p className="flex items-baseline justify-between gap-3 border-thin border-b pb-2">
        <strong className="min-w-0 truncate">{report.name}</strong>
        <Button weight="quiet" onClick={taking.leave}>
          Something else
        </Button>
      </p>
      <div className="flex flex-wrap gap-4">
        <Field label="Stands below" problem={undefined}>
          <Pick
            label="Stands below"
            value={wishes.above}
            options={[
              { value: outline.root, label: 'the site itself' },
              ...pages.map(({ id, title }) => ({ value: id as string, label: title })),
            ]}
            onPick={(above) => wish({ above })}
          />
        </Field>
        <Field label="Links to its topmost pages in" problem={undefined}>
          <Pick
            label="Links to its topmost pages in"
            value={wishes.menu ?? NONE}
            options={[
              { value: NONE, label: 'no menu' },
              ...menus.map(({ id, title }) => ({ value: id as string, label: title })),
            ]}
            onPick={(menu) => wish({ menu: menu === NONE ? null : menu })}
          />
        </Field>
      </div>
      <Tick checked={wishes.published} onChange={(published) => wish({ published })}>
        Published at once <span className="note">Drafts are not.</span>
      </Tick>
      <Tick checked={wishes.posts} onChange={(posts) => wish({ posts })}>
        What has a date becomes a post
      </Tick>
      {hasFirst && (
        <Tick checked={wishes.first} onChange={(first) => wish({ first })}>
          Its first page takes the place of what stands on “{report.first}”
        </Tick>
      )}
      <Sums report={report} />
      {report.broken.map(({ expected, instead }) => (
        <p key={expected} role="alert" className="border-alarm border-l-3 pl-3">
          Expected is: {expected}. Then, {instead}
        </p>
      ))}
      <p className="flex gap-2">
        <Button
          weight="main"
          disabled={busy || report.broken.length > 0}
          onClick={() => void taking.make().then((made) => made && onDone())}
        >
          Take in {counted(report.pages.length, 'page', 'pages')}
        </Button>
        <Button weight="quiet" onClick={taking.leave}>
          Leave it
        </Button>
      </p>
    </div>
  );
}

/** What comes, and who gets it. */
function Sums({ report: { pages, files, gates, leftOut } }: { readonly report: TakingReport }) {
  const who = (opens: TakingReport['pages'][number]['opens']) =>
    pages.filter((one) => one.opens === opens).length;
  const posts = pages.filter(({ kind }) => kind === 'post').length;
  const told = pages.filter(({ notes }) => notes.length > 0).length;
  const lines: readonly (ReactNode | null)[] = [
    `${counted(pages.length - posts, 'page', 'pages')}${posts > 0 ? ` and ${counted(posts, 'post', 'posts')}` : ''}`,
    files.count > 0
      ? `${counted(files.count, 'picture or paper', 'pictures and papers')}, ${megabytes(files.bytes)}`
      : null,
    who('everybody') > 0 ? `${who('everybody')} open to everybody` : null,
    who('some') > 0 ? `${who('some')} not open to guests` : null,
    who('nobody') > 0 ? `${who('nobody')} open to nobody until published` : null,
    files.atTop > 0
      ? `${counted(files.atTop, 'file stands', 'files stand')} on pages with nothing above them in common, and under no page’s gates`
      : null,
    told > 0 ? `${counted(told, 'page has', 'pages have')} something to be known` : null,
    leftOut.length > 0 ? `${counted(leftOut.length, 'thing stays', 'things stay')} out` : null,
  ];
  return (
    <div className="border-thin border-t pt-3">
      <ul className="grid list-disc gap-0.5 pl-5">
        {lines.map((line) => line && <li key={String(line)}>{line}</li>)}
      </ul>
      {gates.length > 0 && (
        <p className="note mt-2">
          Under the {gates.length === 1 ? 'gate' : 'gates'} over {gates.slice(0, 5).join('; ')}
          {gates.length > 5 && ` and ${gates.length - 5} more`}.
        </p>
      )}
    </div>
  );
}

const megabytes = (bytes: number): string =>
  bytes < 100_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;

interface TakenLately {
  readonly id: string;
  readonly at: string;
  readonly by: string;
  readonly summary: string;
}

/** What was taken in lately, each with the way back. */
function Lately() {
  const { data, draft, reloadSite } = useDesk();
  const [list, setList] = useState<readonly TakenLately[]>([]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: read again when anything was changed
  useEffect(() => {
    const calledOff = new AbortController();
    ask<readonly TakenLately[]>('GET', 'taking-in', undefined, calledOff.signal).then(
      (answer) => answer.ok && setList(answer.value),
      () => undefined,
    );
    return () => calledOff.abort();
  }, [data]);
  return (
    <DoneLately
      title="Taken in lately"
      list={list}
      onBack={(id) => void takeBack(id, reloadSite, draft.refresh)}
    />
  );
}
