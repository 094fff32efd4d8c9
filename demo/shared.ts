/** What stands on many pages of Larkfell: an announcement, a box beside reviews, a line under posts, the foot. */
import type { SiteFile } from '@/services';

type Shared = NonNullable<SiteFile['shared']>[number];

const everywhere = { targets: [{ kind: 'branch' as const, item: 'site' }], except: [] };
const posts = (where: string) => ({ targets: [{ kind: 'selection' as const, where }], except: [] });

const text = (id: string, title: string, words: string): Shared['section'] => ({
  type: 'text',
  id,
  title,
  text: words,
});

export const shared: readonly Shared[] = [
  {
    spot: 'top',
    on: { ...everywhere, except: [{ kind: 'item', item: 'join' }] },
    elsewhere: true,
    section: text(
      'thursday-notice',
      'Thursday is open night',
      'Thursday is open night: the gate opens an hour after sunset. [Come up](/visit), or [join us](/join) and keep a place by the dome.',
    ),
  },
  {
    spot: 'beside',
    on: posts('item category is "Kit reviews"'),
    elsewhere: false,
    section: text(
      'lending-shelf',
      'The lending shelf',
      `## The lending shelf

What is reviewed here stands on the shelf behind the kettle. Lend it out, :own[name], write it into the red book, and wipe the caps before it goes back.

A scratch is not a shame. A scratch that nobody wrote down is.`,
    ),
  },
  {
    spot: 'after',
    on: posts('item kind is "post"'),
    elsewhere: false,
    section: text(
      'no-picture-yet',
      'No picture yet',
      'There is no picture of this yet. If you stood there with a camera, [send us one](/contact).',
    ),
  },
  {
    spot: 'foot',
    on: everywhere,
    elsewhere: true,
    section: text(
      'colophon',
      'The foot of every page',
      'Larkfell stands on the moor above Hollin, four hundred metres up. Open on Thursdays from September to April; on every other clear night somebody is there, and the kettle is on.',
    ),
  },
];
