/** What a site file says of how its site looks, what it says of itself and what new members start with. */
import type { Settings } from '@/store';
import { lookOf, startsOf } from '../forms';
import type { SiteFileRead } from './site-file-form';

/** The settings of those that a file brings along. */
export const wishesIn = ({
  look,
  words,
  starts,
}: SiteFileRead): Partial<Pick<Settings, 'look' | 'words' | 'starts'>> => ({
  ...(look !== undefined && { look: look && lookOf(look) }),
  ...(words && { words }),
  ...(starts && { starts: startsOf(starts) }),
});
