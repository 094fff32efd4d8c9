/**
 * Values with which every combination of answers that tests of one fact can give does come about: those in the tests, and
 * those just beside and between them. More than are needed does no harm; what no test tells apart is put together later.
 */
import ipaddr from 'ipaddr.js';
import { foldCase, listOf, type Test } from '../condition';
import { rangeOf } from '../condition/network';
import { atMost, Undecided } from './diagram';

/** The most samples of one thing. */
export const MOST_SAMPLES = 20_000;
/** Texts that are looked for within others come in all combinations up to so many. */
const MOST_PIECES = 10;
/** Signs of which one is in no text that is compared with. */
const BETWEEN = ['·', '~', '|', '¤', '※', '⁂', '⸗', '⌁'];

const unique = <T>(list: Iterable<T>): readonly T[] => [...new Set(list)];
const textsOf = (tests: readonly Test[]): readonly string[] =>
  unique(tests.flatMap(({ value }) => listOf(value).map((one) => foldCase(String(one)))));

/**
 * Texts for tests with *is*, *one of*, *contains*, *starts with* and *ends with*. A text that none of the first names can be
 * taken apart into what it starts with, what it contains and what it ends with, and put together again with a sign between
 * that is in none of them, without any test noticing.
 */
export function textSamples(tests: readonly Test[]): readonly string[] {
  const of = (...ops: readonly Test['op'][]) => textsOf(tests.filter(({ op }) => ops.includes(op)));
  const between = BETWEEN.find((sign) => !textsOf(tests).some((text) => text.includes(sign)));
  if (between === undefined) throw new Undecided('Its texts use every sign there is to tell them apart by.');
  const pieces = of('contains');
  if (pieces.length > MOST_PIECES)
    throw new Undecided(`It looks for more than ${MOST_PIECES} texts within one.`);
  const within = Array.from({ length: 2 ** pieces.length }, (_, chosen) =>
    pieces.filter((_piece, at) => (chosen >> at) % 2 === 1),
  );
  const [starts, ends] = [
    ['', ...of('starts with')],
    ['', ...of('ends with')],
  ];
  atMost(MOST_SAMPLES, starts.length * ends.length * within.length);
  const built = starts.flatMap((start) =>
    ends.flatMap((end) => within.map((inside) => [start, ...inside, end].join(between))),
  );
  return unique([...built, ...textsOf(tests), '']);
}

/** Numbers for comparisons with numbers: each, one between each two, and one on either side. */
export function numberSamples(values: Iterable<number>): readonly number[] {
  const sorted = unique(values)
    .filter((one) => !Number.isNaN(one))
    .toSorted((a, b) => a - b);
  const [first = 0] = sorted;
  const last = sorted.at(-1) ?? 0;
  const beside = (value: number) => Math.max(1, Math.abs(value));
  return [
    first - beside(first),
    ...sorted.flatMap((value, at) => {
      const next = sorted[at + 1];
      return next === undefined ? [value] : [value, value + (next - value) / 2];
    }),
    last + beside(last),
  ];
}

/** How many days beside one on which something changes have to be looked at: between two further apart there is one then. */
export const BESIDE = [0, -1, 1, -2, 2] as const;

/** Network addresses for ranges of them: where each begins, and the one after its end. */
export function networkSamples(tests: readonly Test[]): readonly string[] {
  const ranges = textsOf(tests).flatMap((text) => {
    const range = rangeOf(text);
    return range === null ? [] : [range];
  });
  return unique(
    [...ranges, ...ranges.flatMap(([address, bits]) => mapped(address, bits))].flatMap(([address, bits]) => {
      const bytes = address.toByteArray();
      const size = BigInt(bytes.length * 8);
      const first = (numberOf(bytes) >> (size - BigInt(bits))) << (size - BigInt(bits));
      const after = first + (1n << (size - BigInt(bits)));
      return [first, first - 1n, after - 1n, after].flatMap((number) =>
        number < 0n || number >= 1n << size ? [] : [written(number, bytes.length)],
      );
    }),
  );
}

/** The range of version 6 that stands for one of version 4, and the other way round (RFC 4291 §2.5.5.2). */
function mapped(
  address: ipaddr.IPv4 | ipaddr.IPv6,
  bits: number,
): readonly [ipaddr.IPv4 | ipaddr.IPv6, number][] {
  if (address instanceof ipaddr.IPv6) return bits < 96 ? [[new ipaddr.IPv4([0, 0, 0, 0]), 0]] : [];
  return [[address.toIPv4MappedAddress(), bits + 96]];
}

const numberOf = (bytes: readonly number[]): bigint =>
  bytes.reduce((number, byte) => (number << 8n) | BigInt(byte), 0n);

function written(number: bigint, length: number): string {
  const bytes = Array.from({ length }, (_, at) => Number((number >> BigInt(8 * (length - 1 - at))) & 255n));
  return ipaddr.fromByteArray(bytes).toString();
}

/** Languages for tests of which one is liked best: each tag that is asked for, and one that is asked for nowhere. */
export const languageSamples = (tests: readonly Test[]): readonly (readonly string[])[] => [
  ...textsOf(tests).map((tag) => [tag]),
  ['x-other'],
  [],
];
