/** Generators for properties: conditions, visitors with and without missing facts, gates, policies. */
import fc from 'fast-check';
import {
  type Condition,
  guests,
  hasLevel,
  hasNoLevel,
  hasRole,
  inGroup,
  level,
  signedIn,
} from '../condition';
import { type Gate, leaveOut, missing, redirectToSignIn, type TurnAway } from '../gate';
import { asId, type GateId, type GroupId, type LevelId, type RoleId } from '../ids';
import type { Policy } from '../policy';
import { guest, type VisitorFacts } from '../site';
import { items, vocabulary } from './larkfell';

const gone = 'no-longer-there';
const roleId = fc.constantFrom(...vocabulary.roles.map(({ id }) => id), asId<RoleId>(gone));
const groupId = fc.constantFrom(...vocabulary.groups.map(({ id }) => id), asId<GroupId>(gone));
const levelId = fc.constantFrom(...vocabulary.levels.map(({ id }) => id), asId<LevelId>(gone));

export const tests: fc.Arbitrary<Condition> = fc.oneof(
  fc.constantFrom(signedIn, hasLevel, hasNoLevel),
  roleId.map(hasRole),
  groupId.map(inGroup),
  fc
    .tuple(fc.constantFrom('at least' as const, 'exactly' as const, 'at most' as const), levelId)
    .map(([op, value]) => level(op, value)),
);

export const conditions: fc.Arbitrary<Condition> = fc.letrec<{ condition: Condition }>((tie) => ({
  condition: fc.oneof(
    { maxDepth: 4, depthSize: 'small' },
    tests,
    fc.array(tie('condition'), { maxLength: 4 }).map((of): Condition => ({ kind: 'all', of })),
    fc.array(tie('condition'), { maxLength: 4 }).map((of): Condition => ({ kind: 'any', of })),
    tie('condition').map((of): Condition => ({ kind: 'not', of })),
  ),
})).condition;

/** Visitors, among them impossible ones with facts missing at random. */
export const visitors: fc.Arbitrary<VisitorFacts> = fc.oneof(
  fc.constant(guest),
  fc.record({
    signedIn: fc.boolean(),
    roles: fc.option(fc.uniqueArray(roleId)),
    groups: fc.option(fc.uniqueArray(groupId)),
    level: fc.option(levelId),
  }),
);

const turnAways: fc.Arbitrary<TurnAway> = fc.constantFrom<TurnAway>(
  missing,
  leaveOut,
  redirectToSignIn,
  { kind: 'message', reason: { kind: 'written' }, next: { kind: 'none' } },
  { kind: 'teaser', text: null, reason: { kind: 'kept back' }, next: { kind: 'sign in' } },
);

const target = fc.record({
  kind: fc.constantFrom('item' as const, 'branch' as const),
  item: fc.constantFrom(...items.map((item) => item.id), asId<never>(gone)),
});

export const gateWith = (stance: fc.Arbitrary<Gate['stance']>): fc.Arbitrary<Gate> =>
  fc.record({
    id: fc.uuid().map((uuid) => asId<GateId>(uuid)),
    what: fc.record({
      targets: fc.array(target, { maxLength: 3 }),
      except: fc.array(target, { maxLength: 1 }),
    }),
    who: conditions,
    otherwise: fc.record({
      cases: fc.array(fc.record({ when: fc.oneof(fc.constant(guests), conditions), give: turnAways }), {
        maxLength: 2,
      }),
      last: turnAways,
    }),
    stance,
  });

export const gates = gateWith(fc.constantFrom('also', 'also', 'instead'));
export const policies: fc.Arbitrary<Policy> = fc
  .array(gates, { maxLength: 6 })
  .map((list) => ({ gates: list }));
export const anItem = fc.constantFrom(...items);
