/**
 * What a view of the site is worked out of: who looks, at which site, under which policy, in what request. A view asks about
 * its visitor and never reads them, so that what it asked is known: whoever gives the same answers gets the same.
 */
import {
  type Address,
  type Addressed,
  arrivalFrom,
  type CompiledPolicy,
  type Decision,
  decide,
  decideAlong,
  decidedForAll,
  decideNowhere,
  type GroupId,
  type ItemId,
  open,
  type Predicate,
  type RequestFacts,
  type SharedSection,
  type VisitorFacts,
} from '@/core';
import type { Person, SiteState } from '../running';

/** Who looks, and what they bring: everything that an answer about them is found in. */
export interface Looker {
  readonly compiled: CompiledPolicy;
  readonly facts: VisitorFacts;
  /** Who it is, for pages about themselves. */
  readonly person: Person | null;
  readonly request: RequestFacts;
}

/** Something a view asks about whoever looks. The same question has the same answer for the same visitor in one request. */
export type Question<Answer> = (who: Looker) => Answer;

/** The site as it is drawn for somebody. */
export interface View {
  readonly state: SiteState;
  readonly compiled: CompiledPolicy;
  /** What stands before every address: nothing on the site, the walk's own address on a walk. */
  readonly base: string;
  /**
   * Within a shared section: the page or post that it stands on, null where no item is. Not there anywhere else; a document
   * has one host at most.
   */
  readonly host?: Addressed | null;
  /** Asks about whoever looks. `about` is equal for equal questions, and for no others. */
  ask<Answer>(about: unknown, question: Question<Answer>): Answer;
}

/** A view whose visitor is at hand, for what is not drawn: forms, searches, what is told to administrators. */
export interface ViewContext extends View, Looker {}

/** A view for somebody, asked about them directly. */
export const viewOf = ({
  state,
  compiled,
  facts,
  person,
  request,
  base,
}: Omit<ViewContext, 'ask'>): ViewContext => ({
  state,
  compiled,
  facts,
  person,
  request,
  base,
  ask: askDirectly,
});

function askDirectly<Answer>(this: ViewContext, _: unknown, question: Question<Answer>): Answer {
  return question(this);
}

/** What this visitor gets for an item. */
export const decisionOn = (view: View, item: ItemId): Decision =>
  decidedForAll(view.compiled, item) ??
  view.ask(`item ${item}`, ({ compiled, facts, request }) => decide(compiled, item, facts, request));

/** Whether an item is this visitor's to see. */
export const opens = (view: View, item: ItemId): boolean => decisionOn(view, item).kind === 'open';

/** What is decided at an address where nothing is. */
export const decisionNowhere = (view: View, kind: 'page' | 'file', address: Address | null): Decision =>
  view.ask(`nowhere ${kind} ${address}`, ({ compiled, facts, request }) =>
    decideNowhere(compiled, kind, address, facts, request),
  );

/** Whether the way along redirects from an item ends somewhere. One that goes round never does, and missing is nowhere. */
export const arrives = (view: View, from: ItemId): boolean =>
  view.ask(`arrives ${from}`, ({ compiled, facts, request }) => {
    const { end } = arrivalFrom(compiled, from, facts, request);
    return end !== null && !(end.kind === 'turned away' && end.turnAway.kind === 'missing');
  });

/** What this visitor gets of a shared section on a host that is open to them, or where no item is. */
export function decisionOnHost(view: View, section: SharedSection, host: Addressed | null): Decision {
  const hurdles = view.compiled.places.own(section, host);
  return hurdles.length === 0
    ? open
    : view.ask(`shared ${section.id} ${host?.id}`, ({ facts, request }) =>
        decideAlong(hurdles, facts, request),
      );
}

/** Whether a condition holds, made ready; within a shared section, of its host as well. */
export const holds = (view: View, condition: Predicate): boolean => {
  const host = view.host ?? null;
  return view.ask(host === null ? condition : onHost(condition), ({ facts, request }) =>
    condition(facts, host, request),
  );
};

// The same condition is another question where it is asked of a host.
const asked = new WeakMap<Predicate, object>();
function onHost(condition: Predicate): object {
  const found = asked.get(condition) ?? {};
  asked.set(condition, found);
  return found;
}

const signedIn: Question<boolean> = ({ facts }) => facts.signedIn;
export const isSignedIn = (view: View): boolean => view.ask(signedIn, signedIn);

export const follows = (view: View, group: GroupId): boolean =>
  view.ask(`group ${group}`, ({ facts }) => facts.groups?.includes(group) ?? false);

/** Asked by what is about nobody but themselves, and fits nobody else. */
export const self: Question<Person | null> = ({ person }) => person;
/** What texts can say of whoever reads them; null for those who are nobody on the site. */
export const ownKnown = (
  view: View,
): {
  readonly reader: { readonly name: string; readonly facts: VisitorFacts };
  readonly request: RequestFacts;
} | null =>
  personOfView(view) &&
  view.ask(
    'own words',
    ({ person, facts, request }) => person && { reader: { name: person.name, facts }, request },
  );
export const personOfView = (view: View): Person | null => view.ask(self, self);

/** An address of this site as this view sees it, fit for a link. */
export const addressIn = ({ base }: Pick<View, 'base'>, path: string): string => base + encodeURI(path);
