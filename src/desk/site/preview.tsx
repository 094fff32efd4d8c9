'use client';
import { useState } from 'react';
import { type Addressed, type ItemId, keyOfStandIn, listed, nameOf } from '@/core';
import type { DocumentProblem, WithheldLink } from '@/services';
import { Pick } from '@/ui';
import { useDesk } from '../context';
import { referenceOf } from '../stand-in-reference';
import { useAnswer } from '../use-answer';
import { ItemReachView } from './item-reach';
import type { AnyDocument } from './writing-state';

interface Previewed {
  readonly html: string | null;
  readonly elsewhere: string | null;
  readonly problems: readonly DocumentProblem[];
  readonly withheld: readonly WithheldLink[];
}

interface PreviewProps {
  readonly item: string;
  readonly document: AnyDocument;
  /** Of a shared section: what it stands on, to choose from. */
  readonly hosts?: readonly Addressed[];
}

const MOST_HOSTS = 200;

/** What is being written as it will look, to one of the board's visitors, under the draft's gates. */
export function Preview({ item, document, hosts = [] }: PreviewProps) {
  const { standIns, draft, outline } = useDesk();
  const [at, setAt] = useState('');
  const host = hosts.find(({ id }) => id === at) ?? hosts[0];
  const there = outline.items.get(item as ItemId);
  const [chosen, setChosen] = useState('');
  const standIn = standIns.find((one) => keyOfStandIn(one) === chosen) ?? standIns[0];
  const answer = useAnswer<Previewed>(
    `items/${encodeURIComponent(item)}/preview`,
    {
      standIn: standIn ? referenceOf(standIn) : 'guest',
      document,
      ...(host && { host: host.id }),
    },
    draft.policy,
  );
  const shown = answer?.ok ? answer.value : null;
  return (
    <aside aria-label="How it will look" className="flex min-h-0 flex-col border-iron border-l">
      <div className="flex items-center gap-2 border-thin border-b px-3 py-2">
        <span className="text-quiet">As</span>
        <Pick
          label="To whom it is shown"
          value={standIn ? keyOfStandIn(standIn) : ''}
          options={standIns.map((one) => ({ value: keyOfStandIn(one), label: nameOf(one) }))}
          onPick={setChosen}
        />
        {host ? (
          <>
            <span className="text-quiet">on</span>
            <Pick
              className="min-w-0 flex-1"
              label="On what it is shown"
              value={host.id as string}
              options={hosts
                .slice(0, MOST_HOSTS)
                .map(({ id, title }) => ({ value: id as string, label: title }))}
              onPick={setAt}
            />
          </>
        ) : (
          <span className="note">would see it, with the draft’s gates</span>
        )}
      </div>
      {standIn && there && <ItemReachView item={there} standIn={standIn} />}
      {standIn && shown && shown.withheld.length > 0 && (
        <p className="note border-thin border-b px-3 py-2">
          {withheldInWords(nameOf(standIn), shown.withheld)}
        </p>
      )}
      {shown?.html != null ? (
        <iframe
          title={`The page as ${standIn ? nameOf(standIn) : 'a guest'} would see it`}
          sandbox="allow-same-origin"
          srcDoc={shown.html}
          className="min-h-0 w-full flex-1 bg-white"
        />
      ) : (
        <div className="px-4 py-3">
          {answer && !answer.ok && <p className="text-alarm">{answer.title}</p>}
          {shown?.elsewhere && (
            <p>
              {standIn ? nameOf(standIn) : 'A guest'} is sent on to <code>{shown.elsewhere}</code>.
            </p>
          )}
          {shown && shown.problems.length > 0 && (
            <>
              <p>It can’t be shown until this is mended:</p>
              <ul className="mt-2 grid gap-1 text-alarm">
                {shown.problems.map((problem) => (
                  <li key={`${problem.path} ${problem.line} ${problem.message}`}>
                    {problem.line !== null && `Line ${problem.line}: `}
                    {problem.message}
                  </li>
                ))}
              </ul>
            </>
          )}
        </div>
      )}
    </aside>
  );
}

/** "Guest gets “charts” (to Charts) as words alone: what is linked there is closed to them." */
function withheldInWords(who: string, withheld: readonly WithheldLink[]): string {
  const links = withheld.flatMap(({ kind, words, title }) =>
    kind === 'link' ? [`“${words}” (to ${title})`] : [],
  );
  const pictures = withheld.flatMap(({ kind, title }) => (kind === 'picture' ? [title] : []));
  const said = [
    links.length > 0 && `gets ${listed(links)} as words alone`,
    pictures.length > 0 &&
      `does not get the ${pictures.length === 1 ? 'picture' : 'pictures'} ${listed(pictures)}`,
  ].filter((part) => part !== false);
  return `${who} ${listed(said)}: what stands behind is closed to them.`;
}
