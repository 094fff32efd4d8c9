'use client';
/** What was withheld from the page, by where it would have stood, with reasons; for two walks, what only one of them got. */
import { nameOf } from '@/core';
import type { WalkReport, Withheld } from '@/services';
import { OutcomeMark } from '../marks';
import type { PaneWalk } from './walk-pane';

interface WithheldListProps {
  readonly walks: readonly PaneWalk[];
  readonly reports: readonly (WalkReport | null)[];
}

const PLACES: Readonly<Record<Withheld['where'], string>> = {
  page: 'The page itself',
  section: 'Sections',
  passage: 'Passages of texts',
  entry: 'In lists',
  file: 'Files',
  link: 'Links and menus',
};

const keyOf = ({ where, item, because, given }: Withheld): string =>
  JSON.stringify([where, item, because, given]);

export function WithheldList({ walks, reports }: WithheldListProps) {
  const [a, b] = reports;
  if (walks.length < 2) {
    const list = a?.withheld ?? [];
    return (
      <>
        <h2 className="mb-1 text-lg">Withheld here</h2>
        {!a ? (
          <p className="note">Looking …</p>
        ) : list.length === 0 ? (
          <p>Nothing: {walks[0] ? nameOf(walks[0].standIn) : 'the visitor'} gets everything on this page.</p>
        ) : (
          <ByPlace list={list} />
        )}
      </>
    );
  }
  const only = (mine: WalkReport | null | undefined, theirs: WalkReport | null | undefined) => {
    const there = new Set((theirs?.withheld ?? []).map(keyOf));
    return (mine?.withheld ?? []).filter((one) => !there.has(keyOf(one)));
  };
  const both = (a?.withheld ?? []).filter((one) => b?.withheld.some((other) => keyOf(other) === keyOf(one)));
  const sides = [
    { walk: walks[0], other: walks[1], list: only(b, a) },
    { walk: walks[1], other: walks[0], list: only(a, b) },
  ];
  return (
    <>
      {sides.map(
        ({ walk, other, list }) =>
          walk &&
          other && (
            <section key={walk.token} className="mb-5">
              <h2 className="mb-1 text-lg">
                {nameOf(walk.standIn)} gets, {nameOf(other.standIn)} doesn’t
              </h2>
              {list.length === 0 ? <p className="note">Nothing.</p> : <ByPlace list={list} />}
            </section>
          ),
      )}
      {both.length > 0 && (
        <details>
          <summary className="cursor-pointer font-head text-lg">Withheld from both ({both.length})</summary>
          <ByPlace list={both} />
        </details>
      )}
    </>
  );
}

function ByPlace({ list }: { readonly list: readonly Withheld[] }) {
  const places = [...new Set(list.map(({ where }) => where))];
  return (
    <>
      {places.map((place) => (
        <section key={place}>
          <h3 className="mt-2 mb-1">{PLACES[place]}</h3>
          <ul className="grid gap-2">
            {list
              .filter(({ where }) => where === place)
              .map((one, index) => (
                <li
                  // biome-ignore lint/suspicious/noArrayIndexKey: the same item may be withheld in two places
                  key={`${keyOf(one)} ${index}`}
                  className="grid grid-cols-[1.25rem_1fr] gap-x-2 text-[0.8125rem]"
                >
                  <span className="mt-0.5">{one.given && <OutcomeMark outcome={one.given} size={15} />}</span>
                  <span>
                    <strong className="font-semibold">{one.title}</strong>
                    <span className="block text-quiet">{one.because}</span>
                  </span>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </>
  );
}
