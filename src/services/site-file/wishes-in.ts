/** What a site file says of its site’s language, looks and letters, what it says of itself and what new members start with. */
import type { Settings } from '@/store';
import { lettersOf, lookOf, startsOf } from '../forms';
import type { SiteFileRead } from './site-file-form';

/** The settings of those that a file brings along. */
export const wishesIn = ({
  look,
  words,
  starts,
  language,
  letters,
}: SiteFileRead): Partial<Pick<Settings, 'look' | 'words' | 'starts' | 'language' | 'letters'>> => ({
  ...(language !== undefined && { language }),
  ...(letters && { letters: lettersOf(letters) }),
  ...(look !== undefined && { look: look && lookOf(look) }),
  ...(words && { words }),
  ...(starts && { starts: startsOf(starts) }),
});
