/** What sending a form would do, in words: for walks, on which nothing is done. */
import {
  asId,
  askedIn,
  counted,
  type ItemId,
  listed,
  nameOfId,
  type ProductId,
  reachDifference,
  withPurchase,
} from '@/core';
import { contentOf, offerOf, opens, type Sold, soldAs, type ViewContext } from '../view';
import { courseTaking, handInAt, quizAt } from '../visiting';

export interface WouldDo {
  /** Behind "this would". */
  readonly what: string;
  /** What was typed, by the form's own names; nothing secret. */
  readonly typed: readonly { readonly name: string; readonly value: string }[];
}

/** What a form at a path of the site would do for whoever walks. */
export function wouldDo(
  context: ViewContext,
  [door = '', first = '', second = '']: readonly string[],
  fields: Readonly<Record<string, unknown>>,
): WouldDo {
  const text = (name: string) => (typeof fields[name] === 'string' ? fields[name].slice(0, 300) : '');
  const typed = (...names: readonly string[]) =>
    names.flatMap((name) => (text(name) === '' ? [] : [{ name, value: text(name) }]));
  const who = context.person?.name ?? 'the guest';
  switch (door) {
    case 'sign-in':
      return {
        what: 'sign in whoever has this mail address, if the password is right',
        typed: typed('email'),
      };
    case 'sign-out':
      return { what: `sign ${who} out`, typed: [] };
    case 'sign-up':
      return first === ''
        ? {
            what: 'send a code to this mail address, with which the account begins',
            typed: typed('name', 'email'),
          }
        : { what: 'make the account, if the code is right', typed: [] };
    case 'reset':
      return {
        what: 'send a code for a new password, or set it if the code is right',
        typed: typed('email'),
      };
    case 'passphrase':
      return { what: `open what this passphrase opens, if it is right, to ${who}`, typed: [] };
    case 'groups': {
      const group =
        nameOfId(context.compiled.vocabulary, 'group', first) ?? 'a group that is no longer there';
      return {
        what: second === 'leave' ? `take ${who} out of ${group}` : `put ${who} into ${group}`,
        typed: [],
      };
    }
    case 'forms': {
      const form = contentOf(context.state, asId<ItemId>(first)).section;
      if (form?.type !== 'form') return { what: 'do nothing: there is no such form', typed: [] };
      return {
        what: `send these answers to ${form.mailTo}`,
        typed: form.fields.flatMap(({ label }, index) =>
          text(`f${index}`) === '' ? [] : [{ name: label, value: text(`f${index}`) }],
        ),
      };
    }
    case 'shop': {
      const sold = soldAs(context, first);
      const price = offerOfPrice(context, sold, text('price'));
      if (!sold || !price) return { what: `do nothing: that is not sold to ${who}`, typed: [] };
      const opened = openedByBuying(context, sold.product.id);
      return {
        what: `lead ${who} to the till, to buy ${sold.product.name} for ${price}${opened === '' ? ', which by itself opens nothing more' : `, which would open ${opened}`}`,
        typed: typed('name', 'email', 'voucher'),
      };
    }
    case 'me': {
      if (first === 'purchases')
        return { what: `change something that ${who} bought, if it is theirs`, typed: [] };
      if (first === 'quiz') {
        const quiz = quizAt(context.state, second);
        return {
          what:
            quiz && opens(context, quiz.activity.id)
              ? `begin an attempt of ${who} at ${quiz.activity.title}, with ${counted(askedIn(quiz.quiz), 'question')}`
              : `do nothing: that is not open to ${who}`,
          typed: [],
        };
      }
      if (first === 'hand-in') {
        const found = handInAt(context.state, second);
        return {
          what:
            found && opens(context, found.activity.id)
              ? `hand in a version of ${found.activity.title} for ${who}, for a tutor to look at`
              : `do nothing: that is not open to ${who}`,
          typed: [],
        };
      }
      if (first === 'enrol') {
        const course = courseTaking(context.state, second);
        const open = course && opens(context, course.id);
        return {
          what: open ? `enrol ${who} in ${course.title}` : `do nothing: that is not open to ${who}`,
          typed: [],
        };
      }
      if (first === 'done') {
        const activity = context.state.outline.items.get(asId<ItemId>(second));
        const open = activity?.kind === 'activity' && opens(context, activity.id);
        return {
          what: open
            ? `note that ${who} is done with ${activity.title}`
            : `do nothing: that is not open to ${who}`,
          typed: [],
        };
      }
      return { what: `change what ${who} keeps in their account`, typed: [] };
    }
    default:
      return { what: 'be refused: this address takes no forms', typed: [] };
  }
}

/** A price in words, if it is whoever walks's to have. */
function offerOfPrice(context: ViewContext, sold: Sold | null, value: string): string | null {
  const prices = (sold && offerOf(context, sold)?.prices) ?? [];
  return (
    (prices.find((price) => price.value === value) ?? (prices.length === 1 ? prices[0] : undefined))?.words ??
    null
  );
}

const MOST_OPENED = 8;

/** What buying a product would open to whoever walks, by title. */
function openedByBuying({ state, compiled, facts, request }: ViewContext, product: ProductId): string {
  const after = withPurchase(facts, product, state, request);
  const titles = reachDifference(compiled, facts, after, request).opens.flatMap((id) => {
    const item = state.outline.items.get(id);
    return item === undefined || item.kind === 'file' ? [] : [item.title];
  });
  const more = titles.length - MOST_OPENED;
  return more < 2 ? listed(titles) : `${titles.slice(0, MOST_OPENED).join(', ')} and ${more} more`;
}
