/** How the text of a letter is shown, wherever it is: paragraphs, and addresses that can be followed. */

// What ends a sentence is no part of an address.
const ADDRESS = /(https?:\/\/[^\s"<>]*[^\s"<>.,:;!?)])/;

/** The paragraphs of a text, each as words and addresses by turns: every second part is an address. */
export const paragraphsOf = (text: string): readonly (readonly string[])[] =>
  text.split(/\n{2,}/).map((paragraph) => paragraph.split(ADDRESS));
