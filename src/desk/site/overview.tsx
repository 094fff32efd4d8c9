'use client';
/** What stands first on the Site screen: what is wrong, what is unfinished, what changed last. Each leads to where it is. */
import { type ReactNode, useEffect, useState } from 'react';
import { changedIn, counted, type Item, type ItemId, isAddressed } from '@/core';
import type { SiteOverview } from '@/services';
import { useDesk } from '../context';
import { KindMark } from '../marks';
import { type Answer, ask } from '../service';
import { When } from '../when';

export function Overview() {
  const { data, outline } = useDesk();
  const [answer, setAnswer] = useState<Answer<SiteOverview> | null>(null);
  // Asked again whenever the site was read anew.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the data is what it is asked about
  useEffect(() => {
    const calledOff = new AbortController();
    ask<SiteOverview>('GET', 'overview', undefined, calledOff.signal).then(setAnswer, () => undefined);
    return () => calledOff.abort();
  }, [data]);
  const unpublished = [...outline.items.values()].filter(({ published }) => !published);
  const overview = answer?.ok ? answer.value : null;
  const count = overview ? overview.faults.length + overview.more : 0;
  return (
    <section aria-label="How the site stands" className="min-h-0 overflow-y-auto px-8 py-6">
      <h2 className="text-2xl">How the site stands</h2>
      <p className="note mt-0.5 max-w-prose">
        Choose something to open it, or make something new. What you write is kept as you type, and is on the
        site when you say so.
      </p>
      {answer && !answer.ok && <p className="mt-4 text-alarm">{answer.title}</p>}
      <div className="mt-5 grid max-w-5xl grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-x-10 gap-y-6">
        <div className="grid content-start gap-6">
          <Part
            title={count === 0 ? 'Wrong' : `Wrong: ${counted(count, 'place')}`}
            nothing={
              overview
                ? 'Nothing. Every link leads somewhere, every picture has words, every file is as open as what shows it.'
                : 'Looking …'
            }
          >
            {overview?.faults.map(({ item, section, message }) => (
              <Line key={`${item} ${section} ${message}`} item={item} note={section ?? ''}>
                <span className="block text-alarm">{message}</span>
              </Line>
            ))}
            {overview && overview.more > 0 && (
              <li className="note px-2 py-1.5">
                {counted(overview.more, 'more place')} when these are mended.
              </li>
            )}
          </Part>
          <Part
            title="Nothing leads here"
            note="Whoever may open one gets no menu, text, button or gate that leads to it, and has to know its address."
            nothing={
              overview
                ? 'Whoever may open a page comes to it by a menu, a text, a button or a gate.'
                : 'Looking …'
            }
          >
            {overview?.unled.first.map(({ item, to }) => (
              <Line key={item} item={item} note={addressOf(outline.items.get(item))}>
                {to !== null && <span className="block text-quiet">for {to}, who may open it</span>}
              </Line>
            ))}
            {overview && overview.unled.count > overview.unled.first.length && (
              <li className="note px-2 py-1.5">
                {counted(overview.unled.count - overview.unled.first.length, 'more page')}.
              </li>
            )}
          </Part>
        </div>
        <div className="grid content-start gap-6">
          <Part title="Unfinished" nothing="Nothing is being written, and everything is published.">
            {overview?.drafts.map(({ item, by, at }) => (
              <Line key={`draft ${item}`} item={item} note="being written">
                <span className="block text-quiet">
                  {by}, <When at={at} />
                </span>
              </Line>
            ))}
            {unpublished.slice(0, MOST_UNPUBLISHED).map(({ id }) => (
              <Line key={`unpublished ${id}`} item={id} note="unpublished" />
            ))}
            {unpublished.length > MOST_UNPUBLISHED && (
              <li className="note px-2 py-1.5">
                {counted(unpublished.length - MOST_UNPUBLISHED, 'more item')} not published.
              </li>
            )}
          </Part>
          <Part title="Changed last" nothing="Nothing yet: the site is as it was loaded.">
            {overview?.changed.map(({ item, at }) => (
              <Line key={item} item={item} note="">
                <span className="block text-quiet">
                  <When at={at} />
                </span>
              </Line>
            ))}
          </Part>
        </div>
      </div>
    </section>
  );
}

const MOST_UNPUBLISHED = 20;

const addressOf = (item: Item | undefined): string => (item && isAddressed(item) ? item.address : '');

interface PartProps {
  readonly title: string;
  /** What is said when there is nothing of it. */
  readonly nothing: string;
  /** What is said of what there is. */
  readonly note?: string;
  readonly children: ReactNode;
}

function Part({ title, nothing, note, children }: PartProps) {
  return (
    <section aria-label={title}>
      <h3 className="border-iron border-b pb-1 font-head text-base">{title}</h3>
      <ul className="-mx-2 peer mt-1 empty:hidden">{children}</ul>
      {note && <p className="note mt-1 peer-empty:hidden">{note}</p>}
      <p className="note mt-2 hidden peer-empty:block">{nothing}</p>
    </section>
  );
}

interface LineProps {
  readonly item: ItemId;
  readonly note: string;
  readonly children?: ReactNode;
}

/** An item that is opened by choosing it; what is in a page opens with the page. */
function Line({ item: id, note, children }: LineProps) {
  const { outline, setScreen } = useDesk();
  const item = outline.items.get(id);
  if (!item) return null;
  return (
    <li>
      <button
        type="button"
        onClick={() => setScreen({ kind: 'site', item: changedIn(outline, item).id })}
        className="w-full rounded-[3px] px-2 py-1.5 text-left hover:bg-sunk"
      >
        <span className="flex items-center gap-2">
          <KindMark kind={item.kind} />
          <span className="truncate font-semibold">{item.title}</span>
          {note !== '' && <span className="ml-auto shrink-0 text-quiet text-xs">{note}</span>}
        </span>
        {children}
      </button>
    </li>
  );
}
