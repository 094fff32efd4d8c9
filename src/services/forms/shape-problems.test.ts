import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import './shape-problems';

const form = z.strictObject({
  name: z.string().min(1).max(3),
  code: z.string().regex(/^a+$/).optional(),
  count: z.int().min(2).max(9).optional(),
  share: z.number().gt(0).lt(1).multipleOf(0.25).optional(),
  list: z.array(z.boolean()).min(2).max(3).optional(),
  kind: z.enum(['page', 'post']).optional(),
  one: z
    .discriminatedUnion('type', [
      z.strictObject({ type: z.literal('a') }),
      z.strictObject({ type: z.literal('b') }),
    ])
    .optional(),
  either: z.union([z.literal('x'), z.strictObject({ y: z.string() })]).optional(),
  own: z.string('Say what it is.').optional(),
});
const said = (input: unknown) => form.safeParse(input).error?.issues.map(({ message }) => message) ?? [];

describe('what is wrong with a shape', () => {
  it.each([
    [null, ['This can’t be used as it is: it must be an object.']],
    [{}, ['"name" is missing: it must be a text.']],
    [{ name: null }, ['"name" can’t be used as it is: it must be a text.']],
    [{ name: '' }, ['"name" is empty. Fill it in.']],
    [{ name: 'four' }, ['"name" has more than 3 letters. Shorten it.']],
    [{ name: 'a', code: 'b' }, ['"code" does not have the form of what can stand there.']],
    [{ name: 'a', count: 2.5 }, ['"count" can’t be used as it is: it must be a whole number.']],
    [{ name: 'a', count: 1 }, ['"count" must be at least 2.']],
    [{ name: 'a', count: 10 }, ['"count" must be at most 9.']],
    [{ name: 'a', share: 0 }, ['"share" must be more than 0.']],
    [{ name: 'a', share: 1 }, ['"share" must be less than 1.']],
    [{ name: 'a', share: 0.3 }, ['"share" must be a multiple of 0.25.']],
    [{ name: 'a', list: [true] }, ['"list" needs at least 2 entries.']],
    [{ name: 'a', list: [true, true, true, true] }, ['"list" has more than 3 entries. Take some out.']],
    [{ name: 'a', list: [true, 1] }, ['Entry 2 can’t be used as it is: it must be true or false.']],
    [{ name: 'a', kind: 'file' }, ['"kind" must be "page" or "post".']],
    [{ name: 'a', one: { type: 'c' } }, ['"type" must be "a" or "b".']],
    [{ name: 'a', either: 7 }, ['"either" is none of what can stand there.']],
    [{ name: 'a', own: 7 }, ['Say what it is.']],
    [{ name: 'a', nmae: 1 }, ['"nmae" is not known here. Take it out, or mend its name.']],
    [{ name: 'a', b: 1, c: 1 }, ['"b" and "c" are not known here. Take them out, or mend their names.']],
  ])('is said of %j', (input, problems) => {
    expect(said(input)).toEqual(problems);
  });

  it('is short, whatever was sent', () => {
    const sent = {
      name: 'a',
      ...Object.fromEntries(Array.from({ length: 900 }, (_, at) => [`${at}`.padStart(999, 'k'), 1])),
    };
    const [problem = ''] = said(sent);
    expect(problem).toContain('and 895 more are not known here');
    expect(problem.length).toBeLessThan(400);
  });

  it('is a sentence of ours, whatever is sent', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.jsonValue(), fc.record({ name: fc.jsonValue(), one: fc.jsonValue() })),
        (sent) => {
          for (const message of said(sent)) {
            expect(message).toMatch(/\.$/);
            expect(message).not.toMatch(/Invalid|expected|received|Unrecognized|undefined/);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
});
