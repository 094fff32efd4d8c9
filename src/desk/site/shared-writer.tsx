'use client';
/** Writing a section that many pages share: what it says, at which spot and on what it stands, and how that will look. */
import { useMemo } from 'react';
import { toast } from 'sonner';
import {
  type Addressed,
  hostsOf,
  isAddressed,
  SECTIONS,
  type SectionType,
  type Shared,
  type SharedSection,
  SPOTS,
  type Spot,
} from '@/core';
import type { SharedDocument } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { countsOfKinds, WhatEditor } from '../composer';
import { useDesk } from '../context';
import { aboutIn, newSection, offeredSections } from './new-section';
import { Preview } from './preview';
import { SectionEditor } from './section-editor';
import { TakeAway } from './take-away';
import { useWriting } from './use-writing';
import { Line } from './writer';
import { WritingHead } from './writing-head';

const SPOT_NAMES: Readonly<Record<Spot, string>> = {
  top: 'at the top, above everything',
  before: 'before the text',
  beside: 'beside the text',
  after: 'after the text',
  foot: 'at the foot of the page',
};

export function SharedWriter({ item }: { readonly item: SharedSection }) {
  const writing = useWriting<SharedDocument>(item.id);
  const { outline, vocabulary, compiled, reloadSite, setBench, setScreen, addGate } = useDesk();
  const { document } = writing;
  const on = document?.on;
  const hosts = useMemo((): readonly Addressed[] => {
    // Conditions are values here: that is how they came.
    const shared = { ...item.shared, on: (on ?? item.shared.on) as Shared['on'] };
    return [...hostsOf({ ...item, shared }, outline, vocabulary)]
      .map((id) => outline.items.get(id))
      .filter(isAddressed)
      .toSorted((a, b) => a.title.localeCompare(b.title));
  }, [item, on, outline, vocabulary]);
  if (!document) return <p className="px-8 py-6 text-quiet">{writing.problem ?? 'Opening …'}</p>;
  const { section } = document;
  const put = (over: Partial<SharedDocument>) => writing.change({ ...document, ...over });
  const putSection = (next: SharedDocument['section']) => put({ section: next });
  const problemAt = (path: string) => {
    const problem = writing.problems.find((one) => one.path.split('.')[0] === path);
    return problem && `${problem.line === null ? '' : `Line ${problem.line}: `}${problem.message}`;
  };
  const gate = (compiled.draft.covering.get(item.id) ?? []).find(({ setAside }) => !setAside)?.gate;
  const isLive = (id: string) =>
    (compiled.live.covering.get(item.id) ?? []).some((one) => one.gate.id === id && !one.setAside);
  const about = aboutIn(vocabulary, outline);
  const send = async () => {
    if (!(await writing.send())) return;
    toast(`${section.title} is on the site as you wrote it.`);
    await reloadSite();
  };
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
      <section aria-label={`Writing ${item.title}`} className="min-h-0 overflow-y-auto px-6 py-5">
        <WritingHead
          title={section.title}
          writing={writing}
          theirs={
            writing.theirs &&
            `“${String((writing.theirs.document.section as { title?: unknown } | undefined)?.title ?? '')}”`
          }
          onSend={() => void send()}
        />
        <div className="mt-4 grid max-w-3xl gap-2.5">
          <Line name="Name" problem={undefined}>
            <Input
              label="Name of the section"
              title="For the desk, and for those who are shown a lock or a teaser in its place"
              className="w-full"
              value={section.title}
              maxLength={200}
              onChange={(event) => putSection({ ...section, title: event.target.value })}
            />
          </Line>
          <Line name="Stands" problem={problemAt('spot')}>
            <Pick
              label="Where on a page it stands"
              value={document.spot}
              options={SPOTS.map((spot) => ({ value: spot, label: SPOT_NAMES[spot] }))}
              onPick={(spot) => put({ spot: spot as Spot })}
            />
          </Line>
          <Line name="On" problem={problemAt('on')}>
            <WhatEditor
              what={document.on as Shared['on']}
              label="What it stands on"
              onChange={(what) => put({ on: what as SharedDocument['on'] })}
            >
              {hosts.length === 0
                ? 'Stands on nothing yet.'
                : `Stands on ${countsOfKinds(
                    hosts.map(({ id }) => id),
                    outline,
                  )}.`}
            </WhatEditor>
            {document.on.targets.length === 0 && (
              <Button
                onClick={() =>
                  put({
                    on: { targets: [{ kind: 'branch', item: outline.root }], except: [] },
                    elsewhere: true,
                  })
                }
              >
                On every page
              </Button>
            )}
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                checked={document.elsewhere}
                onChange={(event) => put({ elsewhere: event.target.checked })}
              />
              Also where no page is: search, lists, signing in, messages, the missing page
            </label>
          </Line>
          <Line name="Is" problem={undefined}>
            <Pick
              label="Type of the section"
              value={section.type}
              options={offeredSections(about).map((type) => ({
                value: type as string,
                label: SECTIONS[type].name,
              }))}
              onPick={(type) => {
                const made = newSection(type as SectionType, about);
                if (!made || type === section.type) return;
                const { id, title, summary, published } = section;
                const text = 'text' in section && 'text' in made ? { text: section.text } : {};
                putSection({ ...made, ...text, id, title, summary, published });
              }}
            />
            <Button
              aria-label={gate ? `The gate over ${section.title}` : `Put a gate on ${section.title}`}
              onClick={() => {
                setScreen({ kind: 'board' });
                if (gate) setBench({ kind: 'gate', gate: gate.id });
                else addGate(item);
              }}
            >
              {gate ? 'Its gate, on the board' : 'For some only: put a gate on it'}
            </Button>
          </Line>
          {gate && (
            <Line name="Summary" problem={undefined}>
              <Input
                label={`Summary of ${section.title}`}
                placeholder="For a teaser"
                className="w-full"
                value={section.summary}
                maxLength={2000}
                onChange={(event) => putSection({ ...section, summary: event.target.value })}
              />
            </Line>
          )}
          <SectionEditor page={item.id} section={section} onChange={putSection} />
          {problemAt('section') && (
            <p role="alert" className="text-alarm">
              {problemAt('section')}
            </p>
          )}
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              checked={section.published}
              onChange={(event) => putSection({ ...section, published: event.target.checked })}
            />
            Published: without this it stands nowhere
          </label>
          {section.published && gate && !isLive(gate.id) && (
            <p role="status" className="border-copper border-l-3 pl-3">
              Its gate is in the draft alone. Put that live first: until then everybody would get this.
            </p>
          )}
        </div>
        <footer className="mt-8 grid justify-items-start gap-3 border-thin border-t pt-4">
          <TakeAway item={item.id} />
        </footer>
      </section>
      <Preview item={item.id} document={document} hosts={hosts} />
    </div>
  );
}
