/** The colours that a site has of its own, as a style sheet at an address that is another for other colours. */
import { createHash } from 'node:crypto';
import { type Colours, styleOf } from '@/core';
import type { SiteState } from '../running';

/** Where the style sheet of some colours is. */
export const coloursAt = (colours: Colours): string =>
  `/assets/colours-${createHash('sha256').update(styleOf(colours)).digest('hex').slice(0, 16)}.css`;

/** The style sheet that is at an address now; null for any other. */
export function coloursNamed({ settings: { look } }: SiteState, address: string): string | null {
  return look !== null && coloursAt(look) === address ? styleOf(look) : null;
}
