const NEEDS_TWO_BYTES = /[\u0100-\uffff]/;

/** Texts that were cut out of another are kept with as many bytes for a letter as that took; here with one where it is enough. */
export function* inOneByte(texts: Iterable<string>): Generator<string> {
  for (const text of texts)
    yield NEEDS_TWO_BYTES.test(text) ? text : Buffer.from(text, 'latin1').toString('latin1');
}
