import { filledLetter, type LetterKind, type LetterTemplate, type LetterValues, siteTitleOf } from '@/core';
import { messagesOf, type SiteState } from '../running';

/** What a letter says before it is filled in: in the site's own words, or in Trivet's. */
export const templateOf = (state: SiteState, kind: LetterKind): LetterTemplate =>
  state.settings.letters[kind] ?? messagesOf(state).letters[kind];

/** A letter of a site, filled in. */
export const writtenLetter = (state: SiteState, kind: LetterKind, values: LetterValues): LetterTemplate =>
  filledLetter(templateOf(state, kind), {
    ...values,
    site: siteTitleOf(state.outline),
  });
