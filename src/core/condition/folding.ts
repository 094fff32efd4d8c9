/**
 * Texts as they are compared: in Unicode normal form C, without regard to case. Upper case first, so that letters which
 * become two ("ß") are folded as well.
 */
const SIMPLE = /^[a-z0-9 .@/_-]*$/;

export const fold = (text: string): string =>
  SIMPLE.test(text) ? text : text.normalize('NFC').toUpperCase().toLowerCase().normalize('NFC');
