/** The sites that one can begin with. */
import { clients } from './clients';
import { empty } from './empty';
import { intranet } from './intranet';
import { society } from './society';
import type { ReadyMade } from './start';
import { taught } from './taught';

export const READY_MADE = { empty, society, taught, clients, intranet } satisfies Record<string, ReadyMade>;

export type ReadyMadeId = keyof typeof READY_MADE;
export type { ReadyMade } from './start';
