/**
 * Texts as they are compared: in Unicode normal form C, without regard to case (full case folding, Unicode Standard §3.13
 * D144): letter by letter, because the small form of a capital sigma is another at the end of a word, and upper case on the
 * way, so that letters which become two ("ß") are folded as well. The i without a dot stays a letter of its own.
 */
const SIMPLE = /^[a-z0-9 .@/_-]*$/;
/** What is printed in ASCII: there the small letters are all that there is to it. */
const ASCII = /^[ -~]*$/;

export const foldCase = (text: string): string =>
  SIMPLE.test(text)
    ? text
    : ASCII.test(text)
      ? text.toLowerCase()
      : Array.from(text.normalize('NFC'), foldLetter).join('').normalize('NFC');

const foldLetter = (letter: string): string =>
  letter === 'ı'
    ? letter
    : Array.from(letter.toLowerCase().toUpperCase(), (one) => one.toLowerCase()).join('');
