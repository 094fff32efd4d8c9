/** Sections as a visitor gets them. What is withheld is not in the answer, and nothing tells that it is missing. */
import {
  type Addressed,
  type Decision,
  type File,
  type ItemId,
  nameOfId,
  type Section,
  type Spot,
  sectionsOf,
  type TurnedAway,
} from '@/core';
import type { FormField, SectionContent } from '@/store';
import { type AccountView, accountOf } from './account-view';
import { addressIn, decisionOn, decisionOnHost, follows, isSignedIn, opens, type View } from './context';
import { type CourseOutline, courseOutline } from './course-view';
import { type Entry, entriesOf, pictureOf, type ShownPicture, teaserOf } from './entry';
import { type Offer, offersFor } from './offers';
import { type Step, signInAddress, signUpAddress, stepFor } from './step';
import { contentOf, ownHtml, shownHtml } from './texts';

/** A file in a list. */
export interface FileEntry {
  readonly id: ItemId;
  readonly title: string;
  readonly address: string;
  readonly mediaType: string;
  /** In bytes. */
  readonly size: number;
  readonly picture: ShownPicture | null;
}

export type SectionView = { readonly id: ItemId } & (
  | { readonly kind: 'text'; readonly html: string }
  | { readonly kind: 'picture'; readonly picture: ShownPicture; readonly caption: string }
  | {
      readonly kind: 'video';
      readonly address: string;
      readonly mediaType: string;
      readonly caption: string;
      /** Where its captions are; null for none, or where they are closed. */
      readonly captions: string | null;
      /** What is said in it, empty where that is not written. */
      readonly html: string;
    }
  | {
      readonly kind: 'form';
      readonly html: string;
      readonly fields: readonly FormField[];
      readonly button: string;
      readonly action: string;
    }
  | { readonly kind: 'call'; readonly html: string; readonly label: string; readonly address: string }
  | { readonly kind: 'posts'; readonly entries: readonly Entry[]; readonly more: string | null }
  | { readonly kind: 'files'; readonly files: readonly FileEntry[] }
  | {
      readonly kind: 'outline';
      readonly title: string;
      readonly address: string;
      readonly course: CourseOutline;
    }
  | {
      readonly kind: 'follow';
      readonly html: string;
      readonly group: string;
      /** What the button does; null for guests, who are led to sign in. */
      readonly action: { readonly address: string; readonly follows: boolean } | null;
      readonly signIn: string;
    }
  | { readonly kind: 'prices'; readonly html: string; readonly offers: readonly Offer[] }
  | ({ readonly kind: 'account' } & AccountView)
  | {
      readonly kind: 'teaser';
      readonly title: string;
      readonly text: string;
      readonly coarse: string | null;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | {
      readonly kind: 'locked';
      readonly title: string;
      readonly reason: string | null;
      readonly step: Step | null;
    }
  | { readonly kind: 'message'; readonly reason: string | null; readonly step: Step | null }
  | { readonly kind: 'swap'; readonly html: string }
  | { readonly kind: 'space' }
);

/** The sections of a page or post as this visitor gets them, the page being open. `back` is the page's address. */
export const sectionViews = (context: View, page: ItemId, back: string): readonly SectionView[] =>
  sectionsOf(context.state.outline, page)
    .flatMap((section) => sectionView(context, section, back) ?? [])
    .map((view, index) => (index > 0 && 'html' in view ? { ...view, html: lowered(view.html) } : view));

/** One section as this visitor gets it, or null where nothing of it stands on the page. */
export const sectionView = (context: View, section: Section, back: string): SectionView | null =>
  sectionBy(decisionOn(context, section.id), context, section, back);

const sectionBy = (decision: Decision, context: View, section: Section, back: string): SectionView | null =>
  decision.kind === 'open' ? opened(context, section, back) : turnedAway(context, section, decision, back);

/** What stands at each spot of a page. */
export type SharedViews = Readonly<Record<Spot, readonly SectionView[]>>;

/** The shared sections of a page or post that is open to this visitor, or of what is no item (`null`), at their spots. */
export function sharedViews(view: View, host: Addressed | null): SharedViews {
  const spots: Record<Spot, SectionView[]> = { top: [], before: [], beside: [], after: [], foot: [] };
  const here: View = {
    state: view.state,
    compiled: view.compiled,
    base: view.base,
    host,
    ask: (about, question) => view.ask(about, question),
  };
  for (const section of view.compiled.places.on(host?.id ?? null)) {
    const shown = sectionBy(decisionOnHost(view, section, host), here, section, host?.address ?? '/');
    // A page has one first heading, and it is the page's.
    if (shown)
      spots[section.shared.spot].push('html' in shown ? { ...shown, html: lowered(shown.html) } : shown);
  }
  return spots;
}

// Only the first section can bring the page's heading.
const lowered = (html: string): string => html.replace(/^<h1>(.*?)<\/h1>/s, '<h2>$1</h2>');

function opened(context: View, section: Section, back: string): SectionView | null {
  const { state } = context;
  const { body, section: more } = contentOf(state, section.id);
  const { id } = section;
  if (section.type === 'account') {
    const account = accountOf(context, back);
    return account && { id, kind: 'account', ...account };
  }
  if (section.type === 'text' || more === undefined) {
    const html = shownHtml(context, body);
    return html === '' ? null : { id, kind: 'text', html };
  }
  switch (more.type) {
    case 'picture': {
      const picture = pictureOf(context, more.file as ItemId | null);
      return (
        picture && {
          id,
          kind: 'picture',
          picture: { ...picture, alt: more.alt || picture.alt },
          caption: more.caption,
        }
      );
    }
    case 'video': {
      const file = openFile(context, more.file);
      const captions = openFile(context, more.captions ?? null);
      return (
        file && {
          id,
          kind: 'video',
          address: fileAddress(context, file),
          mediaType: file.mediaType,
          caption: more.caption,
          captions: captions && fileAddress(context, captions),
          html: shownHtml(context, body),
        }
      );
    }
    case 'form': {
      const { fields, button } = more;
      const action = `${context.base}/forms/${encodeURIComponent(id)}`;
      return { id, kind: 'form', html: shownHtml(context, body), fields, button, action };
    }
    case 'call': {
      const address = callAddress(context, more, back);
      return address === null
        ? null
        : { id, kind: 'call', html: shownHtml(context, body), label: more.label, address };
    }
    case 'posts': {
      const entries = entriesOf(context, more, more.count + 1);
      const place = more.category ? ['category', more.category] : more.tag ? ['tag', more.tag] : null;
      const rest = entries.length > more.count && place !== null;
      return {
        id,
        kind: 'posts',
        entries: entries.slice(0, more.count),
        more: rest ? addressIn(context, `/${place.map(slugOf).join('/')}`) : null,
      };
    }
    case 'outline': {
      const course = state.outline.items.get(more.course as ItemId);
      return course?.kind === 'course' && opens(context, course.id)
        ? {
            id,
            kind: 'outline',
            title: course.title,
            address: addressIn(context, course.address),
            course: courseOutline(context, course.id, back),
          }
        : null;
    }
    case 'files':
      return { id, kind: 'files', files: filesOf(context, more.category) };
    case 'prices': {
      const all = offersFor(context, back);
      // In the order in which whoever wrote the page chose them.
      const offers =
        more.products.length === 0
          ? all
          : more.products.flatMap((wanted) => all.find(({ product }) => product === wanted) ?? []);
      const html = shownHtml(context, body);
      return offers.length === 0 && html === '' ? null : { id, kind: 'prices', html, offers };
    }
    case 'follow': {
      const group = state.names.groups.find((one) => one.id === more.group);
      if (!group?.open) return null;
      const following = follows(context, group.id);
      const address = `${context.base}/groups/${encodeURIComponent(group.id)}/${following ? 'leave' : 'follow'}`;
      return {
        id,
        kind: 'follow',
        html: shownHtml(context, body),
        group: nameOfId(context.compiled.vocabulary, 'group', group.id) ?? '',
        action: isSignedIn(context) ? { address, follows: following } : null,
        signIn: signInAddress(context, back),
      };
    }
    default:
      return more satisfies never;
  }
}

function turnedAway(context: View, section: Section, decision: TurnedAway, back: string): SectionView | null {
  const { turnAway, reason } = decision;
  const { id, title } = section;
  switch (turnAway.kind) {
    case 'teaser':
      return { id, kind: 'teaser', title, ...teaserOf(context, id, decision, back) };
    case 'locked':
      return { id, kind: 'locked', title, reason, step: stepFor(context, turnAway.next, back) };
    case 'message':
      return { id, kind: 'message', reason, step: stepFor(context, turnAway.next, back) };
    case 'swap':
      return { id, kind: 'swap', html: ownHtml(context, turnAway.text) };
    case 'leave out':
      return turnAway.keepSpace ? { id, kind: 'space' } : null;
    case 'missing':
    case 'redirect':
      return null;
    default:
      return turnAway satisfies never;
  }
}

const fileAddress = (context: View, file: File): string =>
  addressIn(context, `/files/${file.id}/${file.name}`);

function openFile(context: View, id: string | null): File | null {
  const file = id === null ? undefined : context.state.outline.items.get(id as ItemId);
  return file?.kind === 'file' && opens(context, file.id) ? file : null;
}

/** Where a call to action leads; null for those who can't go there, who get no button. */
function callAddress(
  context: View,
  { to }: Extract<SectionContent, { type: 'call' }>,
  back: string,
): string | null {
  switch (to.kind) {
    case 'sign in':
      return isSignedIn(context) ? null : signInAddress(context, back);
    case 'sign up':
      return isSignedIn(context) ? null : signUpAddress(context, back);
    case 'sign out':
      return null;
    case 'outside':
      return to.url;
    case 'item': {
      const target = context.state.outline.items.get(to.item);
      if (!target || !opens(context, target.id)) return null;
      return target.kind === 'file'
        ? fileAddress(context, target)
        : 'address' in target
          ? addressIn(context, target.address)
          : null;
    }
    default:
      return to satisfies never;
  }
}

/** The files of a category that this visitor may open; those that stand for themselves, not what is in pages. */
export const filesOf = (context: View, category: string | null): readonly FileEntry[] =>
  (context.state.outline.children.get(context.state.outline.root) ?? []).flatMap((file) =>
    file.kind === 'file' &&
    (category === null || file.facts?.category === category) &&
    opens(context, file.id)
      ? [
          {
            id: file.id,
            title: file.title,
            address: fileAddress(context, file),
            mediaType: file.mediaType,
            size: file.size,
            picture: pictureOf(context, file.id),
          },
        ]
      : [],
  );

/** A category or a tag as it stands in an address. */
export const slugOf = (name: string): string =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '');
