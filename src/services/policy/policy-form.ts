/** Policies as they come from outside: their exact shape and their limits. What they name is checked by {@link readPolicy}. */
import { z } from 'zod';
import { OPENABLE_KINDS, TURN_AWAY_KINDS, type TurnAwayKind, valuesOf } from '@/core';
import { conditionOrText, conditionShape, id, webAddress, whatShape, words } from '../forms';

export const MOST_GATES = 1000;
const MOST_AUDIENCES = 500;
export const MOST_EXPECTATIONS = 500;
export const MOST_LANDINGS = 500;
const LONGEST_TEXT = 2000;

const text = words(LONGEST_TEXT, 'Write something, or choose another reason.', 'That text is too long.');

const reason = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('written') }),
  z.strictObject({ kind: z.literal('own'), text }),
  z.strictObject({ kind: z.literal('kept back') }),
]);
const markdown = words(20_000, 'Write what stands in its place.', 'That text is too long.');
const next = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('sign up') }),
  z.strictObject({ kind: z.literal('follow'), group: id }),
  z.strictObject({ kind: z.literal('buy'), product: id }),
  z.strictObject({
    kind: z.literal('outside'),
    url: webAddress,
    label: words(100, 'Say what stands on the button.', 'That is too long for a button.'),
  }),
  z.strictObject({ kind: z.literal('none') }),
  z.strictObject({ kind: z.literal('sign in') }),
  z.strictObject({ kind: z.literal('passphrase') }),
  z.strictObject({ kind: z.literal('item'), item: id }),
]);
const turnAways = {
  teaser: z.strictObject({
    kind: z.literal('teaser'),
    show: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('summary') }),
      z.strictObject({
        kind: z.literal('words'),
        count: z.int().min(1, 'Show at least one word.').max(400, 'A teaser shows at most 400 words.'),
      }),
      z.strictObject({ kind: z.literal('text'), text }),
    ]),
    preview: z.boolean().default(false),
    reason,
    next,
  }),
  redirect: z.strictObject({
    kind: z.literal('redirect'),
    to: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('sign in') }),
      z.strictObject({ kind: z.literal('passphrase') }),
      z.strictObject({ kind: z.literal('item'), item: id }),
      z.strictObject({ kind: z.literal('outside'), url: webAddress }),
    ]),
  }),
  message: z.strictObject({ kind: z.literal('message'), reason, next }),
  missing: z.strictObject({ kind: z.literal('missing') }),
  'leave out': z.strictObject({ kind: z.literal('leave out'), keepSpace: z.boolean().optional() }),
  swap: z.strictObject({ kind: z.literal('swap'), text: markdown }),
  locked: z.strictObject({ kind: z.literal('locked'), reason, next }),
} satisfies Record<TurnAwayKind, z.ZodObject>;
const turnAway = z.discriminatedUnion('kind', valuesOf(turnAways));
const given = z.union([z.strictObject({ kind: z.literal('named'), turnAway: id }), turnAway]);
/** The shape of a policy, with conditions of one kind or another: as values, or also as texts. */
export function policyShape<C extends z.ZodType>(condition: C) {
  const gate = z.strictObject({
    id,
    what: whatShape(condition),
    who: condition,
    otherwise: z.strictObject({
      cases: z.array(z.strictObject({ when: condition, give: given })).max(50),
      last: given,
    }),
    stance: z.enum(['also', 'instead']),
  });
  const audience = z.strictObject({
    id,
    name: words(100, 'Give the audience a name.', 'A name has at most 100 letters.'),
    who: condition,
  });
  const named = z.strictObject({
    id,
    name: words(100, 'Give the turn-away a name.', 'A name has at most 100 letters.'),
    give: turnAway,
  });
  const landing = z.strictObject({
    id,
    after: z.enum(['sign in', 'sign out']),
    when: condition,
    to: id,
    always: z.boolean(),
  });
  const standard = z.strictObject({
    kind: z.enum(OPENABLE_KINDS),
    category: words(200, 'Name the category.').nullable(),
    gate: id,
  });
  const expectation = z.strictObject({
    id,
    who: condition,
    claim: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.enum(['opens', 'only opens', 'never opens', 'never sees']) }),
      z.strictObject({ kind: z.literal('gets'), outcome: z.enum(TURN_AWAY_KINDS) }),
    ]),
    what: whatShape(condition),
  });
  return z.strictObject({
    gates: z.array(gate).max(MOST_GATES, `A site has at most ${MOST_GATES} gates.`),
    audiences: z
      .array(audience)
      .max(MOST_AUDIENCES, `A site has at most ${MOST_AUDIENCES} audiences.`)
      .default([]),
    turnAways: z.array(named).max(200, 'A site has at most 200 turn-aways with names.').default([]),
    landings: z
      .array(landing)
      .max(MOST_LANDINGS, `A site has at most ${MOST_LANDINGS} landing rules.`)
      .default([]),
    defaults: z.array(standard).max(100, 'A site has at most 100 defaults.').default([]),
    expectations: z
      .array(expectation)
      .max(MOST_EXPECTATIONS, `A site has at most ${MOST_EXPECTATIONS} expectations.`)
      .default([]),
  });
}

export const policyForm = policyShape(conditionShape);

/** The shape of a policy in a file, where conditions may stand in the text form. */
export const policyInFile = policyShape(conditionOrText);
export type PolicyInFile = z.output<typeof policyInFile>;
