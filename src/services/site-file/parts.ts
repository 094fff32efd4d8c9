/** The parts of a site file as their authors write them: pages, links, gates, what others get. */
import type { ItemInFile } from './site-file-form';

type PageInFile = Extract<ItemInFile, { kind: 'page' }>;
type LinkTarget = Extract<ItemInFile, { kind: 'link' }>['target'];

/** A page with one text, or with sections. */
export const page = (
  id: string,
  parent: string,
  title: string,
  address: string,
  summary: string,
  body: string | NonNullable<PageInFile['sections']>,
): PageInFile => ({
  kind: 'page',
  id,
  parent,
  title,
  address,
  summary,
  ...(typeof body === 'string' ? { body } : { sections: body }),
});

export const course = (
  id: string,
  title: string,
  address: string,
  summary: string,
  body: string,
): ItemInFile => ({ kind: 'course', id, parent: 'site', title, address, summary, body });

export const unit = (id: string, parent: string, title: string): ItemInFile => ({
  kind: 'unit',
  id,
  parent,
  title,
});

/** An activity that is read. */
export const reading = (
  id: string,
  parent: string,
  title: string,
  address: string,
  body: string,
  more: Partial<Extract<ItemInFile, { kind: 'activity' }>> = {},
): ItemInFile => ({ kind: 'activity', activity: 'reading', id, parent, title, address, body, ...more });

export const link = (id: string, parent: string, title: string, target: LinkTarget): ItemInFile => ({
  kind: 'link',
  id,
  parent,
  title,
  target,
});

export const to = (item: string): LinkTarget => ({ kind: 'item', item });

// What a gate or an expectation is over.
export const item = (name: string) => ({ kind: 'item' as const, item: name });
export const branch = (name: string) => ({ kind: 'branch' as const, item: name });
export const select = (where: string) => ({ kind: 'selection' as const, where });
export const postsIn = (category: string) => select(`item kind is "post" and item category is "${category}"`);

// What everybody else gets.
export const goTo = (name: string) => ({ kind: 'redirect', to: item(name) });
export const redirectToSignIn = { kind: 'redirect', to: { kind: 'sign in' } };
export const missing = { kind: 'missing' };
export const leaveOut = { kind: 'leave out' };
export const summary = { kind: 'summary' };
export const written = { kind: 'written' };
export const own = (text: string) => ({ kind: 'own', text });
export const message = (reason: object, next: object = { kind: 'none' }) => ({
  kind: 'message',
  reason,
  next,
});
export const teaser = (show: object, reason: object, next: object, preview = false) => ({
  kind: 'teaser',
  show,
  preview,
  reason,
  next,
});
export const locked = (reason: object) => ({ kind: 'locked', reason, next: { kind: 'none' } });
export const named = (turnAway: string) => ({ kind: 'named', turnAway });
/** What guests get before it is asked who of the others they are. */
export const guestsSignIn = { cases: [{ when: 'not signed in', give: redirectToSignIn }] };

export const gate = (
  id: string,
  target: object,
  who: string,
  last: object,
  more: {
    readonly stance?: 'instead';
    readonly cases?: readonly object[];
    readonly except?: readonly object[];
  } = {},
) => ({
  id,
  what: { targets: [target], except: more.except ?? [] },
  who,
  otherwise: { cases: more.cases ?? [], last },
  stance: more.stance ?? 'also',
});

export const audience = (id: string, name: string, who: string) => ({ id, name, who });

export const expectation = (
  id: string,
  who: string,
  claim: object,
  targets: readonly object[],
  except: readonly object[] = [],
) => ({ id, who, claim, what: { targets, except } });
