import { type Messages, messagesIn } from '@/core';
import type { SiteState } from './site-state';

/** What Trivet itself says to the visitors of a site, in the site's language. */
export const messagesOf = ({ settings }: Pick<SiteState, 'settings'>): Messages =>
  messagesIn(settings.language);
