import { describe, expect, it } from 'vitest';
import { guest } from '../site';
import { id, items, outline, people, policy, request, vocabulary } from '../testing/larkfell';
import { compile, decide, openPolicy, wholeSiteGate, withWholeSite } from '.';

const open = (over: typeof policy, item: string, facts = guest) =>
  decide(compile(over, outline, vocabulary), id(item), facts, request).kind === 'open';

describe('the whole site behind sign-in', () => {
  const on = withWholeSite(openPolicy, true, [{ kind: 'item', item: id('home') }]);

  it('is one switch: guests are sent to sign in from everything but what stays open', () => {
    for (const item of items) {
      if (item.kind !== 'page' && item.kind !== 'post' && item.kind !== 'file') continue;
      expect(open(on, item.id)).toBe(item.id === 'home');
      expect(open(on, item.id, people.marek)).toBe(item.published);
    }
  });

  it('leaves the way in standing: the link to sign in, and the menu it is in', () => {
    expect(open(on, 'top')).toBe(true);
    expect(open(on, 'to-sign-in')).toBe(true);
    expect(open(on, 'to-observers')).toBe(false);
  });

  it('is undone as easily, and changes nothing else', () => {
    expect(withWholeSite(withWholeSite(policy, true), false)).toEqual(policy);
    expect(wholeSiteGate(withWholeSite(policy, true))).not.toBeNull();
    expect(wholeSiteGate(policy)).toBeNull();
    expect(withWholeSite(on, true).gates).toHaveLength(1);
  });
});
