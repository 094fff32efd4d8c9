/** What addresses pages get, and at which others they are found. */
import slugify from '@sindresorhus/slugify';
import { type Address, isReserved, normaliseAddress } from '@/core';
import { cut, type Note } from '../texts';
import type { Place } from './places';
import type { Planning, Standing } from './planning';

/** No link is written with more letters, and an address needs room for a number. */
const LONGEST = 1500;

/** The address of a place: what it asks for or its path, or the first like it that is free. */
export function addressOf(
  { base, state }: Planning,
  place: Place,
  notes: Note[],
  addressLike: (wanted: string) => Address,
): Address {
  const ofTitle = `/${slugify(cut(place.title, 100)) || 'page'}`;
  const path = place.parts.length === 0 ? ofTitle : `/${place.parts.join('/')}`;
  const asked = place.asks === null ? null : askedFor(place.asks, path, notes);
  const whole = base + (asked ?? path);
  const wanted = whole.length > LONGEST || normaliseAddress(whole) === null ? base + ofTitle : whole;
  const address = addressLike(wanted);
  const normal = normaliseAddress(wanted);
  if (address !== normal) {
    const holder = normal && state.outline.addressed.get(normal);
    const why = holder
      ? `“${holder.title}” has the address ${wanted}`
      : normal === null || isReserved(normal)
        ? `It can’t have the address ${wanted}`
        : `Another page that comes in has the address ${wanted}`;
    notes.push({ line: null, message: `${why}, so it has ${address}.` });
  } else if (wanted !== whole)
    notes.push({ line: null, message: `Its address would be too long, so it has ${address}.` });
  return address;
}

/** What a page asks for as its address: a whole one, or another last part. */
function askedFor(asks: string, path: string, notes: Note[]): string | null {
  const plain = URL.canParse(asks) ? new URL(asks).pathname : asks;
  const whole = plain.startsWith('/') ? plain : `${path.slice(0, path.lastIndexOf('/'))}/${plain}`;
  const address = normaliseAddress(whole.replace(/[?#].*$/s, '').replace(/\.html?$/i, ''));
  if (address !== null && address !== '/') return address;
  notes.push({ line: null, message: `It asks for the address “${cut(asks, 80)}”, which none can have.` });
  return null;
}

const MOST_FORMER = 50;

/** Notes the other spellings of the addresses of pages, under which somebody may still look for them. */
export function noteFormer(planning: Planning, standing: Standing, taken: ReadonlySet<Address>): void {
  const { state, formerly } = planning;
  const { place, item, address, notes } = standing;
  if (!place.text) return;
  if ([place.text.path, place.text.formerPath].some((one) => one?.includes('?')))
    notes.push({ line: null, message: 'Its address had a question mark in it; such a one can’t be kept.' });
  const kept: Address[] = [];
  for (const one of spellingsOf(planning, standing)) {
    const former = normaliseAddress(one);
    if (former === null || former === address || former === '/' || isReserved(former)) continue;
    if (formerly.has(former) || taken.has(former) || kept.length >= MOST_FORMER) continue;
    if (state.outline.addressed.has(former) || state.oldAddresses.has(former)) continue;
    formerly.set(former, item);
    kept.push(former);
  }
  standing.formerly = kept;
}

/** Where a page was found, or could have been: as a file, as it is written, as it says itself. */
function spellingsOf({ material, base }: Planning, { place }: Standing): readonly string[] {
  const { path = '', formerPath = null, document } = place.text ?? {};
  const isWeb = material.kind === 'web';
  const own = isWeb ? '' : base;
  const folder = `/${place.parts.slice(0, -1).join('/')}`.replace(/\/$/, '');
  const spellings = [
    ...(isWeb || /\.html?$/i.test(path) ? [`/${path}`] : []),
    place.key === '' ? '/index.html' : `/${place.key.replace(/\?.*$/s, '')}`,
    ...(formerPath === null ? [] : [`/${formerPath}`]),
  ].filter((one) => !one.includes('?'));
  return [
    ...spellings.map((one) => own + one),
    ...(document?.formerly ?? [])
      .map((one) => (URL.canParse(one) ? new URL(one).pathname : one))
      .map((one) => (one.startsWith('/') ? own + one : `${own}${folder}/${one}`)),
  ];
}
