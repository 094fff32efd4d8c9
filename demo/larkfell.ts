/** Larkfell Observatory: the demo site as a site file, loaded by the same service as anybody's site. */
import type { SiteFile } from '@/services';
import { policy } from './gates';
import { items } from './pages';
import { people } from './people';

export const larkfell: SiteFile = {
  format: 'trivet site',
  version: 1,
  levels: [
    { id: 'friend', name: 'Friend' },
    { id: 'observer', name: 'Observer' },
    { id: 'keeper', name: 'Keeper' },
  ],
  roles: [
    { id: 'trustee', name: 'Trustee' },
    { id: 'volunteer', name: 'Volunteer' },
    { id: 'tutor', name: 'Tutor' },
  ],
  groups: [
    { id: 'dome-crew', name: 'Dome crew' },
    { id: 'hollin-school', name: 'Hollin School' },
    { id: 'tarn-survey', name: 'Tarn Survey' },
    { id: 'sky-diary', name: 'Sky diary followers' },
    { id: 'suspended', name: 'Suspended', private: true },
  ],
  people: [...people],
  items: [...items],
  policy,
  board: ['marek', 'tobin'],
};
