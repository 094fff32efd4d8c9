/** Texts with their addresses as they are on this site: of pages, of headings in them, of files. */
import { randomUUID } from 'node:crypto';
import { asId, type ItemId } from '@/core';
import { cut, type FoundDocument } from '../texts';
import type { FoundFile } from './material';
import { keyOf } from './places';
import type { Planning, Standing } from './planning';
import { targetOf } from './source';

type Spot = FoundDocument['spots'][number];

const MOST_TOLD = 5;

/** Writes the text of a page, and notes what it uses and what it leads to in vain. */
export function writeText(planning: Planning, standing: Standing): void {
  const { text } = standing.place;
  if (!text) return;
  const { body, spots } = text.document;
  const nowhere = new Set<string>();
  let written = '';
  let end = 0;
  for (const spot of spots) {
    const address = addressFor(planning, standing, spot, nowhere);
    if (address === null) continue;
    written += `${body.slice(end, spot.from)}${spot.before}${address}${spot.after}`;
    end = spot.to;
  }
  standing.body = written + body.slice(end);
  if (nowhere.size === 0) return;
  const list = [...nowhere];
  const more = list.length > MOST_TOLD ? ` and ${list.length - MOST_TOLD} more` : '';
  standing.notes.push({
    line: null,
    message: `It leads to what is not there: ${list.slice(0, MOST_TOLD).join(', ')}${more}.`,
  });
}

/** An address in a text as it is here; null where it stays as it is. */
function addressFor(planning: Planning, standing: Standing, spot: Spot, nowhere: Set<string>): string | null {
  const { material, byKey } = planning;
  const { kind, url } = spot;
  if (url.startsWith('#')) return anchorIn(standing, url.slice(1)) || null;
  const target = targetOf(url, standing.place.text?.path ?? '', material.base);
  if (!target) {
    if (kind === 'picture') nowhere.add(`${cut(url, 80)} (a picture from elsewhere)`);
    return null;
  }
  const file = material.files.get(target.path);
  if (file) return used(planning, standing, file, spot);
  const plain = target.path.replace(/\?.*$/s, '');
  const page = byKey.get(keyOf(target.path)) ?? byKey.get(keyOf(plain));
  if (page && kind === 'link') return spelled(page.address) + anchorIn(page, target.anchor);
  nowhere.add(cut(url, 80));
  // So it is found among what leads nowhere, and again once there is something.
  return spelled(`/${plain}`);
}

/** The heading that an anchor led to, as it is reached now; nothing for none. */
function anchorIn({ place }: Standing, anchor: string): string {
  const known = place.text?.document.anchors ?? {};
  const now = Object.hasOwn(known, anchor) ? known[anchor] : anchor;
  return now ? `#${encodeURIComponent(now)}` : '';
}

/** Where a file will be, which a page shows or links to. */
function used({ files }: Planning, standing: Standing, file: FoundFile, { before }: Spot): string {
  const there = files.get(file.path) ?? { item: asId<ItemId>(randomUUID()), users: [], alt: '' };
  files.set(file.path, there);
  if (!there.users.includes(standing)) there.users.push(standing);
  standing.files.add(file.path);
  const alt = /^!\[(.*)\]\($/s.exec(before)?.[1] ?? '';
  there.alt ||= cut(alt.replace(/\\([[\]\\])/g, '$1'), 500);
  return spelled(`/files/${there.item}/${file.name}`);
}

/** An address as Markdown takes it. */
const spelled = (address: string): string =>
  encodeURI(address).replace(/[()?#]/g, (one) => `%${one.charCodeAt(0).toString(16)}`);
