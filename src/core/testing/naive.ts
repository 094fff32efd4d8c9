/**
 * A second, slow and obvious reading of the model, written only to be compared with the real one. It shares no code
 * with `compile`, `decide` or `explain` beyond the types.
 */
import { type Condition, type Scene, type Test, testsIn } from '../condition';
import type { Gate, Target } from '../gate';
import type { ItemId } from '../ids';
import type { Policy } from '../policy';
import {
  guest,
  type Item,
  type Outline,
  type RequestFacts,
  requestAt,
  type VisitorFacts,
  type Vocabulary,
} from '../site';

/** True, false, or undefined for unknown. */
export function holds(
  condition: Condition,
  scene: Scene,
  vocabulary: Vocabulary,
  inside: readonly string[] = [],
): boolean | undefined {
  switch (condition.kind) {
    case 'all': {
      const values = condition.of.map((part) => holds(part, scene, vocabulary, inside));
      return values.includes(false) ? false : values.includes(undefined) ? undefined : true;
    }
    case 'any': {
      const values = condition.of.map((part) => holds(part, scene, vocabulary, inside));
      return values.includes(true) ? true : values.includes(undefined) ? undefined : false;
    }
    case 'not': {
      const value = holds(condition.of, scene, vocabulary, inside);
      return value === undefined ? undefined : !value;
    }
    case 'audience': {
      const audience = vocabulary.audiences.find((one) => one.id === condition.audience);
      if (!audience || inside.includes(audience.id)) return undefined;
      return holds(audience.who, scene, vocabulary, [...inside, audience.id]);
    }
    case 'test':
      return testHolds(condition, scene, vocabulary);
    default:
      return condition satisfies never;
  }
}

type Plain = string | number | boolean | readonly string[] | undefined;

/** One test, spelt out. */
function testHolds(
  test: Test,
  { visitor, item, request }: Scene,
  vocabulary: Vocabulary,
): boolean | undefined {
  const { op, value } = test;
  const about = test.subject ?? '';
  const is = (list: readonly { readonly id: string }[], id: unknown) => list.some((one) => one.id === id);
  const asked = (list: readonly { readonly id: string }[], held: readonly string[] | null | undefined) =>
    !held || !is(list, value) ? undefined : held.includes(String(value));
  const bought = visitor.purchases?.filter((one) => one.product === about);
  const good = (one: { readonly state: string; readonly until: string | null }) =>
    one.state === 'paid' && !(one.until !== null && one.until < request.today);
  const lasts = (one: { readonly until: string | null }) => one.until === null || one.until >= request.today;
  const done = (id: string) => visitor.completions?.some((one) => one.item === id);
  const last = (days: readonly string[] | undefined): string | undefined => days?.toSorted().at(-1);
  const first = (days: readonly string[] | undefined): string | undefined => days?.toSorted()[0];
  const begun = (one: { readonly on: string }) => one.on <= request.today;
  const was = (one: { readonly on: string; readonly until: string | null; readonly state: string }) =>
    begun(one) &&
    (one.state === 'refunded' || (one.state === 'paid' && !(one.until !== null && one.until < one.on)));
  const given = visitor.granted.filter((one) => begun(one) && lasts(one));
  const roles = visitor.roles && [...visitor.roles, ...given.flatMap((one) => one.roles)];
  const groups = visitor.groups && [...visitor.groups, ...given.flatMap((one) => one.groups)];
  const order: readonly string[] = vocabulary.levels.map((level) => level.id);
  const levels = [visitor.level, ...given.map((one) => one.level)].filter((one) => one !== null);
  const level = levels.toSorted((a, b) => order.indexOf(b) - order.indexOf(a))[0] ?? null;
  switch (test.fact) {
    case 'signed in':
      return visitor.signedIn;
    case 'role':
      return asked(vocabulary.roles, roles);
    case 'group':
      return asked(vocabulary.groups, groups);
    case 'passphrase':
      return asked(vocabulary.passphrases, visitor.passphrases);
    case 'item group':
      return asked(vocabulary.groups, item?.facts?.group === undefined ? undefined : [item.facts.group]);
    case 'level': {
      if (op === 'is set' || op === 'is not set') return (level !== null) === (op === 'is set');
      if (level === null || !order.includes(level) || !order.includes(String(value))) return undefined;
      const difference = order.indexOf(level) - order.indexOf(String(value));
      return op === 'at least' ? difference >= 0 : op === 'exactly' ? difference === 0 : difference <= 0;
    }
    case 'owns':
      return is(vocabulary.products, about) ? bought?.some(good) : undefined;
    case 'subscribed': {
      const product = vocabulary.products.find((one) => one.id === about);
      return product && bought ? product.kind === 'subscription' && bought.some(good) : undefined;
    }
    case 'refunded':
      return is(vocabulary.products, about) ? bought?.some((one) => one.state === 'refunded') : undefined;
    case 'ever owned':
      return is(vocabulary.products, about) ? bought?.some(was) : undefined;
    case 'ended':
      return is(vocabulary.products, about) && bought ? bought.some(was) && !bought.some(good) : undefined;
    case 'late':
      return is(vocabulary.products, about)
        ? bought?.some((one) => good(one) && (one.order?.paidUntil ?? '9999-12-31') < request.today)
        : undefined;
    case 'trial':
      return is(vocabulary.products, about)
        ? bought?.some((one) => good(one) && (one.order?.trialUntil ?? '') >= request.today)
        : undefined;
    case 'voucher':
      return is(vocabulary.products, about)
        ? bought?.some((one) => one.state === 'paid' && one.order?.voucher)
        : undefined;
    case 'renewal':
      if (!is(vocabulary.products, about)) return undefined;
      return compared(
        'date',
        test,
        last(bought?.filter(good).flatMap((one) => one.order?.renews ?? [])),
        request,
      );
    case 'enrolled':
      return is(vocabulary.courses, about)
        ? visitor.enrolments?.some((one) => one.course === about && one.on <= request.today && lasts(one))
        : undefined;
    case 'completed':
      return is(vocabulary.activities, about) ? done(about) : undefined;
    case 'completed unit':
      return is(vocabulary.units, about) ? done(about) : undefined;
    case 'completed course':
      return is(vocabulary.courses, about) ? done(about) : undefined;
    case 'completed the one before': {
      if (!visitor.completions) return undefined;
      if (item?.kind === 'course') return true;
      if (!item?.within) return undefined;
      return item.within.before === null || done(item.within.before);
    }
    case 'item course':
      return asked(
        vocabulary.courses,
        item?.kind === 'course' ? [item.id] : item?.within && [item.within.course],
      );
    case 'item unit':
      return asked(
        vocabulary.units,
        item?.kind === 'unit' ? [item.id] : item?.within?.unit ? [item.within.unit] : undefined,
      );
    case 'activity type':
      return compared('choice', test, item?.kind === 'activity' ? item.activity : undefined, request, [
        'reading',
        'video',
        'quiz',
        'hand-in',
      ]);
    case 'purchase':
      if (!is(vocabulary.products, about)) return undefined;
      return compared(
        'date',
        test,
        last(bought?.filter((one) => one.state === 'paid').map(({ on }) => on)),
        request,
      );
    case 'enrolment':
      if (!is(vocabulary.courses, about)) return undefined;
      return compared(
        'date',
        test,
        first(
          visitor.enrolments
            ?.filter((one) => one.course === about && one.on <= request.today && lasts(one))
            .map(({ on }) => on),
        ),
        request,
      );
    case 'score':
      if (!is(vocabulary.activities, about)) return undefined;
      return compared(
        'number',
        test,
        visitor.completions?.find((one) => one.item === about)?.score ?? undefined,
        request,
      );
    case 'profile': {
      const field = vocabulary.fields.find((one) => one.id === about);
      if (!field) return undefined;
      const met = new Map(Object.entries(visitor.profile ?? {})).get(about);
      return compared(field.type, test, met, request, field.choices);
    }
    case 'joined':
      return compared('date', test, visitor.joined ?? undefined, request);
    case 'person':
      return compared('text', test, visitor.email ?? undefined, request);
    case 'desk right':
      return compared('choice', test, visitor.desk ?? undefined, request, [
        'owner',
        'gatekeeper',
        'writer',
        'reader',
        'tutor',
      ]);
    case 'mail domain':
      return compared('text', test, visitor.email?.split('@').at(-1), request);
    case 'share':
      return visitor.share === null ? undefined : visitor.share < Number(value);
    case 'visitor owns item':
      return item?.facts?.owner === undefined || visitor.id === null
        ? undefined
        : item.facts.owner === visitor.id;
    case 'visitor in item group': {
      const group = item?.facts?.group;
      return group === undefined || !is(vocabulary.groups, group) ? undefined : groups?.includes(group);
    }
    case 'item kind':
      return compared('choice', test, item?.kind, request, [
        'site',
        'page',
        'post',
        'course',
        'unit',
        'activity',
        'section',
        'menu',
        'link',
        'file',
      ]);
    case 'item address':
      return compared('text', test, item && 'address' in item ? item.address : undefined, request);
    case 'item category':
      return compared('text', test, item?.facts?.category, request);
    case 'item author':
      return compared('text', test, item?.facts?.author, request);
    case 'item tag':
      return item?.facts?.tags?.some((tag) => folded(tag) === folded(String(value)));
    case 'item owner':
      return (item?.facts?.owner !== undefined) === (op === 'is set');
    case 'item picture':
      return (item?.facts?.picture !== undefined) === (op === 'is set');
    case 'item date':
      return compared('date', test, item?.facts?.date, request);
    case 'date':
      return compared('date', test, request.today, request);
    case 'time': {
      const [from = '', to = ''] = value as readonly string[];
      const now = `${String(Math.floor(request.minute / 60)).padStart(2, '0')}:${String(request.minute % 60).padStart(2, '0')}`;
      return from <= to ? from <= now && now < to : now >= from || now < to;
    }
    case 'weekday':
      return compared('choice', test, request.weekday, request, [
        'Monday',
        'Tuesday',
        'Wednesday',
        'Thursday',
        'Friday',
        'Saturday',
        'Sunday',
      ]);
    case 'parameter':
      return compared('text', test, new Map(Object.entries(request.parameters)).get(about), request);
    case 'referrer':
      return compared('text', test, request.referrer ?? undefined, request);
    case 'device':
      return compared('choice', test, request.device ?? undefined, request, ['phone', 'tablet', 'computer']);
    case 'browser':
      return compared('choice', test, request.browser ?? undefined, request, ['blink', 'gecko', 'webkit']);
    case 'language': {
      const liked = request.languages?.[0];
      return liked === undefined
        ? undefined
        : (value as readonly string[]).some(
            (tag) => folded(liked) === folded(tag) || folded(liked).startsWith(`${folded(tag)}-`),
          );
    }
    case 'network':
      return request.network === null
        ? undefined
        : (value as readonly string[]).some((range) =>
            bitsOf(request.network ?? '').startsWith(prefixOf(range)),
          );
    default:
      return test.fact satisfies never;
  }
}

/** By the table of Unicode's full case folding for the letters that the generators use. */
const folded = (text: string) => text.normalize('NFC').toLowerCase().replace(/ß/g, 'ss').replace(/ς/g, 'σ');

/** The address as bits in letters, its version first; enough for the addresses that the generators make. */
function bitsOf(address: string): string {
  if (!address.includes(':'))
    return `4${address
      .split('.')
      .map((part) => Number(part).toString(2).padStart(8, '0'))
      .join('')}`;
  const [head = '', tail] = address.split('::');
  const groups = (text: string | undefined) => (text ? text.split(':') : []);
  const missing = 8 - groups(head).length - groups(tail).length;
  const all = [
    ...groups(head),
    ...(tail === undefined ? [] : new Array<string>(missing).fill('0')),
    ...groups(tail),
  ];
  return `6${all.map((group) => Number.parseInt(group, 16).toString(2).padStart(16, '0')).join('')}`;
}

function prefixOf(range: string): string {
  const [address = '', length] = range.split('/');
  const bits = bitsOf(address);
  return length === undefined ? bits : bits.slice(0, Number(length) + 1);
}

const dayNumber = (day: string) => Math.round(Date.parse(day) / 86_400_000);

/** A comparison by type; undefined for what is missing, of another type, or asked in a way its type has not. */
function compared(
  type: 'text' | 'choice' | 'number' | 'date' | 'yes/no',
  { op, value }: Test,
  met: Plain,
  request: RequestFacts,
  choices: readonly string[] = [],
): boolean | undefined {
  if (op === 'is set') return met !== undefined;
  if (op === 'is not set') return met === undefined;
  if (met === undefined) return undefined;
  const given = Array.isArray(value) ? value : [value];
  if (type === 'text' || type === 'choice') {
    if (typeof met !== 'string') return undefined;
    const texts = given.map((one) => folded(String(one)));
    const [text = ''] = texts;
    if (type === 'choice' && texts.some((one) => !choices.map(folded).includes(one))) return undefined;
    if (op === 'is') return folded(met) === text;
    if (op === 'is not') return folded(met) !== text;
    if (op === 'one of') return texts.includes(folded(met));
    if (type === 'choice') return undefined;
    if (op === 'contains') return folded(met).includes(text);
    if (op === 'starts with') return folded(met).startsWith(text);
    return op === 'ends with' ? folded(met).endsWith(text) : undefined;
  }
  if (type === 'yes/no') {
    if (typeof met !== 'boolean') return undefined;
    return op === 'is yes' ? met : op === 'is no' ? !met : undefined;
  }
  const wanted = given.map((one) =>
    type === 'number'
      ? Number(one)
      : typeof one === 'number'
        ? one
        : dayNumber(one === 'today' ? request.today : String(one)),
  );
  const [first = Number.NaN, second = first] = wanted;
  if (type === 'number' ? typeof met !== 'number' : typeof met !== 'string') return undefined;
  if (type === 'date' && !/^\d{4}-\d\d-\d\d$/.test(String(met))) return undefined;
  const here = type === 'number' ? Number(met) : dayNumber(String(met));
  const today = dayNumber(request.today);
  switch (op) {
    case 'is':
      return here === first;
    case 'is not':
      return type === 'number' ? here !== first : undefined;
    case 'between':
      return here >= first && here <= second;
    case 'at least':
      return type === 'number' ? here >= first : undefined;
    case 'at most':
      return type === 'number' ? here <= first : undefined;
    case 'before':
      return type === 'date' ? here < first : undefined;
    case 'after':
      return type === 'date' ? here > first : undefined;
    case 'within the last':
      return type === 'date' ? here >= today - first && here <= today : undefined;
    case 'within the next':
      return type === 'date' ? here >= today && here <= today + first : undefined;
    case 'at least ago':
      return type === 'date' ? here <= today - first : undefined;
    default:
      return undefined;
  }
}

/** The kind of answer: 'open', or the turn-away before fitting and the gate (or 'unpublished') that spoke. */
export function naiveDecision(
  policy: Policy,
  outline: Outline,
  vocabulary: Vocabulary,
  item: Item,
  visitor: VisitorFacts,
  request: RequestFacts,
): 'open' | { readonly by: string } {
  if (!item.published) return { by: 'unpublished' };
  // In a course, what one is in speaks first.
  if (item.kind === 'unit' || item.kind === 'activity') {
    const whole = item.parent && outline.items.get(item.parent);
    const said = whole ? naiveDecision(policy, outline, vocabulary, whole, visitor, request) : 'open';
    if (said !== 'open') return said;
  }
  const covering = policy.gates.filter((gate) => covers(gate, item, outline, vocabulary));
  const lastInstead = covering.map((gate) => gate.stance).lastIndexOf('instead');
  for (const gate of covering.slice(Math.max(0, lastInstead))) {
    if (holds(gate.who, { visitor, item, request }, vocabulary) !== true) return { by: gate.id };
  }
  if (!['link', 'section', 'file', 'unit', 'activity'].includes(item.kind)) return 'open';
  const parent = item.parent && outline.items.get(item.parent);
  const above =
    parent && parent.kind !== 'site'
      ? naiveDecision(policy, outline, vocabulary, parent, visitor, request)
      : 'open';
  if (above !== 'open') return above;
  const target =
    item.kind === 'link' && item.target.kind === 'item' ? outline.items.get(item.target.item) : undefined;
  return target ? naiveDecision(policy, outline, vocabulary, target, visitor, request) : 'open';
}

function covers(gate: Gate, item: Item, outline: Outline, vocabulary: Vocabulary): boolean {
  const ancestors = new Set<ItemId>();
  for (let at: Item | undefined = item; at; at = at.parent ? outline.items.get(at.parent) : undefined)
    ancestors.add(at.id);
  const hit = (inDoubt: boolean) => (target: Target) =>
    target.kind === 'selection'
      ? selects(target.where, item, vocabulary, inDoubt)
      : target.kind === 'branch'
        ? ancestors.has(target.item)
        : target.item === item.id;
  const inDoubt = gate.stance === 'also';
  return gate.what.targets.some(hit(inDoubt)) && !gate.what.except.some(hit(!inDoubt));
}

/**
 * In doubt about a missing fact, an item is taken as having none; without doubt it has to be certain. A group that is gone
 * is still the group of the items that have it.
 */
function selects(where: Condition, item: Item, names: Vocabulary, inDoubt: boolean): boolean {
  const group = (id: string) => ({ id: id as never, name: id, private: false });
  const asked = testsIn(where).flatMap(({ fact, value }) =>
    fact === 'item group' ? [group(String(value))] : [],
  );
  const vocabulary = { ...names, groups: [...names.groups, ...asked] };
  // Selections ask nothing of visitors and requests, so any will do.
  const scene: Scene = {
    visitor: guest,
    item,
    request: requestAt({ today: '2026-11-20', minute: 0, weekday: 'Friday' }),
  };
  if (!inDoubt) return holds(where, scene, vocabulary) === true;
  const known = (condition: Condition): boolean => {
    switch (condition.kind) {
      case 'all':
        return condition.of.every(known);
      case 'any':
        return condition.of.some(known);
      case 'not':
        return !known(condition.of);
      case 'audience':
        return false;
      case 'test':
        return holds(condition, scene, vocabulary) ?? condition.op === 'is not';
      default:
        return condition satisfies never;
    }
  };
  return known(where);
}
