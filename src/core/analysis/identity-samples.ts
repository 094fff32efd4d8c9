import { listOf, type Test } from '../condition';
import { atMost } from './diagram';
import { MOST_SAMPLES, textSamples } from './samples';
import type { Asked } from './things';

/** Who somebody is: an id and a mail address, of which tests ask the whole, the part after the @, or whose an item is. */
export function identitySamples(
  asked: readonly Asked[],
): readonly { readonly id: string; readonly email: string }[] {
  const person = asked.filter(({ test }) => test.fact === 'person').map(({ test }) => test);
  const domain = asked.filter(({ test }) => test.fact === 'mail domain').map(({ test }) => test);
  const owners = asked.flatMap(({ test, item }) =>
    test.fact === 'visitor owns item' && item?.facts?.owner !== undefined ? [item.facts.owner as string] : [],
  );
  const parts = person.flatMap(halves);
  const local = textSamples(parts.flatMap(({ before }) => before)).filter((text) => text !== '');
  const after = textSamples([...domain, ...parts.flatMap(({ after: tests }) => tests)]).filter(
    (text) => text !== '',
  );
  const [some = 'somebody'] = local;
  const names = person.length === 0 ? [some] : [...local, 'somebody'];
  atMost(MOST_SAMPLES, names.length * (after.length + 1));
  const emails = names.flatMap((name) =>
    [...after, 'made-up.example'].map((host) => `${name}@${host}`.toLowerCase()),
  );
  atMost(MOST_SAMPLES, (owners.length + 1) * emails.length);
  return ['made-up', ...owners].flatMap((id) => emails.map((email) => ({ id, email })));
}

/** What a test of a whole mail address comes to of the part before its @ and of that after it. */
function halves(test: Test): { readonly before: readonly Test[]; readonly after: readonly Test[] } {
  const made = listOf(test.value)
    .map(String)
    .map((text) => {
      const at = text.lastIndexOf('@');
      const as = (op: Test['op'], value: string): readonly Test[] =>
        value === '' ? [] : [{ ...test, op, value }];
      if (at < 0) return { before: as(test.op, text), after: as(test.op, text) };
      const [front, rear] = [text.slice(0, at), text.slice(at + 1)];
      const whole =
        test.op === 'contains' || test.op === 'starts with' || test.op === 'ends with' ? test.op : 'is';
      return {
        before: as(whole === 'starts with' || whole === 'is' ? 'is' : 'ends with', front),
        after: as(whole === 'ends with' || whole === 'is' ? 'is' : 'starts with', rear),
      };
    });
  return { before: made.flatMap(({ before }) => before), after: made.flatMap(({ after }) => after) };
}
