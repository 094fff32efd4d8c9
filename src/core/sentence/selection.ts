/** Selections as plain language: "posts in Night logs", "pages not tagged winter". */
import type { Condition, Test } from '../condition';
import { dayInWords, type ItemKind, isDay, nameOfId, type Vocabulary } from '../site';
import { listed } from './words';

const KINDS: Readonly<Record<ItemKind, string>> = {
  site: 'the site itself',
  page: 'pages',
  post: 'posts',
  section: 'sections',
  menu: 'menus',
  link: 'menu links',
  file: 'files',
};

/** What a selection takes, as a noun phrase. */
export function describeSelection(where: Condition, vocabulary: Vocabulary): string {
  if (where.kind === 'any' && where.of.length > 0)
    return listed(
      where.of.map((part) => describeSelection(part, vocabulary)),
      'or',
    );
  const parts = where.kind === 'all' ? where.of : [where];
  const head = parts.find((part) => kindsIn(part) !== null);
  const rest = parts.filter((part) => part !== head);
  const noun = (head && kindsIn(head)) ?? 'everything';
  return rest.length === 0 ? noun : `${noun} ${listed(rest.map((part) => clause(part, true, vocabulary)))}`;
}

const kindsIn = (condition: Condition): string | null => {
  if (condition.kind !== 'test' || condition.fact !== 'item kind' || condition.op === 'is not') return null;
  return listed([condition.value].flat().map((kind) => KINDS[kind as ItemKind] ?? `“${kind}”`));
};

function clause(condition: Condition, holds: boolean, vocabulary: Vocabulary): string {
  switch (condition.kind) {
    case 'not':
      return clause(condition.of, !holds, vocabulary);
    case 'all':
    case 'any': {
      if (condition.of.length === 0)
        return (condition.kind === 'all') === holds ? 'of any sort' : 'of no sort';
      const word = (condition.kind === 'all') === holds ? 'and' : 'or';
      return `(${listed(
        condition.of.map((part) => clause(part, holds, vocabulary)),
        word,
      )})`;
    }
    case 'audience':
      return 'in an audience';
    case 'test':
      return phrase(condition, holds, vocabulary);
    default:
      return condition satisfies never;
  }
}

function phrase(test: Test, holds: boolean, vocabulary: Vocabulary): string {
  const denied = (test.op === 'is not') === holds ? 'not ' : '';
  const values = [test.value].flat().map((value) => (isDay(value) ? dayInWords(value) : `${value}`));
  const value = listed(values, test.op === 'between' ? 'and' : 'or');
  const plain = ['is', 'is not', 'one of', 'includes'].includes(test.op);
  switch (test.fact) {
    case 'item kind':
      return `that are ${denied}${listed(
        [test.value].flat().map((kind) => KINDS[kind as ItemKind] ?? `${kind}`),
        'or',
      )}`;
    case 'item owner':
      return (test.op === 'is set') === holds ? 'that belong to somebody' : 'that belong to nobody';
    case 'item picture':
      return (test.op === 'is set') === holds ? 'with a picture' : 'without a picture';
    case 'item group':
      return `${denied}of the group ${nameOfId(vocabulary, 'group', String(test.value)) ?? 'that no longer exists'}`;
    case 'item category':
      if (plain) return `${denied}in ${value}`;
      break;
    case 'item tag':
      if (plain) return `${denied}tagged ${value}`;
      break;
    case 'item author':
      if (plain) return `${denied}by ${value}`;
      break;
    case 'item address':
      if (plain) return `${denied}at ${value}`;
      break;
    default:
      break;
  }
  const fact = test.fact.replace('item ', '');
  const how = test.value === undefined ? test.op : `${test.op} ${value}`;
  return `whose ${fact} ${holds ? '' : 'is not '}${holds && /^(before|after|between)/.test(how) ? `is ${how}` : how}`;
}
