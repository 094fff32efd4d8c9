/** A question as a QTI 3.0 item. */
import type { Question, QuestionKind, QuestionOf } from '@/core';
import { bodyOf } from './markup';
import { NAMESPACE } from './qti';
import { escaped } from './xml';

/** What of an item depends on the kind of its question. */
interface Parts {
  readonly cardinality: 'single' | 'multiple' | 'ordered';
  readonly baseType: 'identifier' | 'string' | 'float' | 'directedPair';
  readonly correct: readonly string[];
  /** What each answer is worth, where that is more than right or wrong. */
  readonly mapping?: {
    readonly entries: readonly (readonly [key: string, worth: number])[];
    readonly lower?: number;
  };
  readonly interaction: string;
  /** What SCORE is set to. */
  readonly score: string;
  /** Of what may be chosen: what is said to whoever did, by identifier. */
  readonly feedback?: boolean;
}

const WRITTEN: { readonly [Kind in QuestionKind]: (question: QuestionOf<Kind>) => Parts } = {
  one: ({ options }) => ({
    cardinality: 'single',
    baseType: 'identifier',
    correct: chosen(options).slice(0, 1),
    interaction: choices(options, 1),
    // Where several are right, each is.
    mapping: { entries: chosen(options).map((key) => [key, 1] as const) },
    score: MAPPED,
    feedback: options.some(({ feedback }) => feedback !== ''),
  }),
  several: ({ options }) => {
    const right = chosen(options);
    const wrong = options.length - right.length;
    return {
      cardinality: 'multiple',
      baseType: 'identifier',
      correct: right,
      interaction: choices(options, 0),
      mapping: {
        lower: 0,
        entries: options.map(
          (one, at) =>
            [
              `c${at + 1}`,
              one.right ? 1 / right.length : -1 / Math.max(1, Math.min(right.length, wrong)),
            ] as const,
        ),
      },
      score: MAPPED,
      feedback: options.some(({ feedback }) => feedback !== ''),
    };
  },
  number: ({ right, tolerance }) => ({
    cardinality: 'single',
    baseType: 'float',
    correct: [String(right)],
    interaction: TEXT_ENTRY,
    score: whenRight(
      tolerance === 0
        ? `<qti-equal tolerance-mode="exact">${BOTH}</qti-equal>`
        : `<qti-equal tolerance-mode="absolute" tolerance="${tolerance} ${tolerance}">${BOTH}</qti-equal>`,
    ),
  }),
  text: ({ accepted }) => ({
    cardinality: 'single',
    baseType: 'string',
    correct: accepted.slice(0, 1),
    mapping: { entries: accepted.map((one) => [one, 1] as const) },
    interaction: TEXT_ENTRY,
    score: MAPPED,
  }),
  order: ({ steps }) => ({
    cardinality: 'ordered',
    baseType: 'identifier',
    correct: steps.map((_, at) => `c${at + 1}`),
    interaction: `<qti-order-interaction response-identifier="RESPONSE" shuffle="true">${steps
      .map((step, at) => `<qti-simple-choice identifier="c${at + 1}">${escaped(step)}</qti-simple-choice>`)
      .join('')}</qti-order-interaction>`,
    score: whenRight(`<qti-match>${BOTH}</qti-match>`),
  }),
  pairs: ({ pairs }) => {
    const rights = [...new Set(pairs.map(({ right }) => right))];
    const keys = pairs.map(({ right }, at) => `l${at + 1} r${rights.indexOf(right) + 1}`);
    const set = (texts: readonly string[], letter: string, most: number) =>
      `<qti-simple-match-set>${texts
        .map(
          (text, at) =>
            `<qti-simple-associable-choice identifier="${letter}${at + 1}" match-max="${most}">${escaped(text)}</qti-simple-associable-choice>`,
        )
        .join('')}</qti-simple-match-set>`;
    return {
      cardinality: 'multiple',
      baseType: 'directedPair',
      correct: keys,
      mapping: { entries: keys.map((key) => [key, 1 / pairs.length] as const) },
      interaction: `<qti-match-interaction response-identifier="RESPONSE" shuffle="true" max-associations="${pairs.length}">${set(
        pairs.map(({ left }) => left),
        'l',
        1,
      )}${set(rights, 'r', pairs.length)}</qti-match-interaction>`,
      score: MAPPED,
    };
  },
};

const BOTH = '<qti-variable identifier="RESPONSE"/><qti-correct identifier="RESPONSE"/>';
const MAPPED =
  '<qti-set-outcome-value identifier="SCORE"><qti-map-response identifier="RESPONSE"/></qti-set-outcome-value>';
const TEXT_ENTRY = '<p><qti-text-entry-interaction response-identifier="RESPONSE" expected-length="20"/></p>';

const whenRight = (test: string): string =>
  `<qti-response-condition><qti-response-if>${test}<qti-set-outcome-value identifier="SCORE"><qti-base-value base-type="float">1</qti-base-value></qti-set-outcome-value></qti-response-if></qti-response-condition>`;

type Options = QuestionOf<'one'>['options'];

const chosen = (options: Options): readonly string[] =>
  options.flatMap(({ right }, at) => (right ? [`c${at + 1}`] : []));

const choices = (options: Options, most: number): string =>
  `<qti-choice-interaction response-identifier="RESPONSE" shuffle="true" max-choices="${most}">${options
    .map(
      ({ text, feedback }, at) =>
        `<qti-simple-choice identifier="c${at + 1}">${escaped(text)}${
          feedback === ''
            ? ''
            : `<qti-feedback-inline outcome-identifier="FEEDBACK" identifier="c${at + 1}" show-hide="show">${escaped(feedback)}</qti-feedback-inline>`
        }</qti-simple-choice>`,
    )
    .join('')}</qti-choice-interaction>`;

const partsOf = <Kind extends QuestionKind>(question: QuestionOf<Kind>): Parts =>
  (WRITTEN[question.kind] as unknown as (question: QuestionOf<Kind>) => Parts)(question);

const outcome = (identifier: string, cardinality: string, baseType: string, value: string | null): string =>
  `<qti-outcome-declaration identifier="${identifier}" cardinality="${cardinality}" base-type="${baseType}">${
    value === null ? '' : `<qti-default-value><qti-value>${value}</qti-value></qti-default-value>`
  }</qti-outcome-declaration>`;

/** An item of its own: what is asked, what is right, what it is worth from 0 to 1, and what is said of it. */
export function itemXml(question: Question, identifier: string, title: string): string {
  const { cardinality, baseType, correct, mapping, interaction, score, feedback } = partsOf(
    question as QuestionOf<'one'>,
  );
  const explained = question.feedback !== '';
  const values = correct.map((value) => `<qti-value>${escaped(value)}</qti-value>`).join('');
  const sensitive = baseType === 'string' ? ' case-sensitive="false"' : '';
  const mapped = mapping
    ? `<qti-mapping${mapping.lower === undefined ? '' : ` lower-bound="${mapping.lower}"`} default-value="0">${mapping.entries
        .map(
          ([key, worth]) => `<qti-map-entry map-key="${escaped(key)}" mapped-value="${worth}"${sensitive}/>`,
        )
        .join('')}</qti-mapping>`
    : '';
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<qti-assessment-item xmlns="${NAMESPACE}" identifier="${identifier}" title="${escaped(title)}" adaptive="false" time-dependent="false" xml:lang="en">`,
    `<qti-response-declaration identifier="RESPONSE" cardinality="${cardinality}" base-type="${baseType}"><qti-correct-response>${values}</qti-correct-response>${mapped}</qti-response-declaration>`,
    outcome('SCORE', 'single', 'float', '0'),
    outcome('MAXSCORE', 'single', 'float', '1'),
    feedback ? outcome('FEEDBACK', cardinality, 'identifier', null) : '',
    explained ? outcome('EXPLAINED', 'single', 'identifier', null) : '',
    `<qti-item-body>${bodyOf(question.text)}${interaction}</qti-item-body>`,
    `<qti-response-processing>${score}${
      feedback
        ? '<qti-set-outcome-value identifier="FEEDBACK"><qti-variable identifier="RESPONSE"/></qti-set-outcome-value>'
        : ''
    }${
      explained
        ? '<qti-set-outcome-value identifier="EXPLAINED"><qti-base-value base-type="identifier">always</qti-base-value></qti-set-outcome-value>'
        : ''
    }</qti-response-processing>`,
    explained
      ? `<qti-modal-feedback outcome-identifier="EXPLAINED" identifier="always" show-hide="show"><qti-content-body><p>${escaped(question.feedback)}</p></qti-content-body></qti-modal-feedback>`
      : '',
    '</qti-assessment-item>',
    '',
  ]
    .filter((line, at, all) => line !== '' || at === all.length - 1)
    .join('\n');
}
