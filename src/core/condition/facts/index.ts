/**
 * The facts there are, each declared once: checking, the text form, the composer, sentences and evaluation read these
 * entries. In the order in which the composer offers them. docs/adding.md tells what else a new one needs.
 */
import { keysOf } from '../../keys';
import { itemFacts } from './item';
import { requestFacts } from './request';
import { visitorFacts } from './visitor';

export type { FactEntry, Reader, Wanted } from './fact';

export const FACTS = { ...visitorFacts, ...itemFacts, ...requestFacts };

export type FactName = keyof typeof FACTS;
export const FACT_NAMES = keysOf(FACTS);
