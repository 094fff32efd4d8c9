/** A QTI 3.0 item as a question, as far as there is a kind of question for it. */
import { randomUUID } from 'node:crypto';
import type { QuestionKind } from '@/core';
import { type QuestionRead, readQuestion } from '../writing';
import { markdownOf, wordsOf } from './markup';
import { childrenOf, elementsIn, type XmlElement, type XmlNode } from './xml';

export type ItemRead =
  | {
      readonly kind: 'question';
      readonly question: QuestionRead;
      /** What of the item could not be kept. */
      readonly notes: readonly string[];
    }
  /** Why it is left out. */
  | { readonly kind: 'left out'; readonly why: string };

/** What is read of an item before it is known what kind of question it makes. */
interface Read {
  readonly interaction: XmlElement;
  readonly baseType: string;
  readonly correct: readonly string[];
  /** What answers are worth, by key. */
  readonly worth: ReadonlyMap<string, number>;
  readonly root: XmlElement;
  readonly notes: string[];
}

/** The part of a question that its kind has, or why there is none, in words. */
type Part = { readonly kind: QuestionKind } & Readonly<Record<string, unknown>>;

const READERS: Readonly<Record<string, (read: Read) => Part | string>> = {
  'qti-choice-interaction': choiceOf,
  'qti-text-entry-interaction': entryOf,
  'qti-order-interaction': orderOf,
  'qti-match-interaction': matchOf,
};

/** More than a question with everything that can be in it has. Texts in letters. */
const MOST_ELEMENTS = 1000;
const LONGEST = 60_000;

const NO_ANSWER = 'it does not say what is right';

export function readItem(root: XmlElement, points: number): ItemRead {
  const leftOut = (why: string): ItemRead => ({ kind: 'left out', why });
  if (root.name !== 'qti-assessment-item')
    return leftOut(`it is no item of QTI 3.0 but “${root.name.slice(0, 60)}”`);
  const [body] = childrenOf(root, 'qti-item-body');
  if (!body) return leftOut('it asks nothing');
  if (allIn(root).length > MOST_ELEMENTS || wordsOf(root.children).length > LONGEST)
    return leftOut('it is larger than any question here');
  const interactions = allIn(body).filter(({ name }) => name.endsWith('-interaction'));
  const [interaction] = interactions;
  if (!interaction) return leftOut('it asks nothing that can be answered');
  if (interactions.length > 1) return leftOut(`it asks ${interactions.length} things at once`);
  const reader = READERS[interaction.name];
  if (!reader)
    return leftOut(`it is answered by a way of which there is none here (${interaction.name.slice(0, 60)})`);
  const declared = childrenOf(root, 'qti-response-declaration').find(
    ({ attributes }) => attributes.identifier === interaction.attributes['response-identifier'],
  );
  if (!declared) return leftOut(NO_ANSWER);
  const notes: string[] = [];
  const part = reader({
    interaction,
    root,
    notes,
    baseType: declared.attributes['base-type'] ?? '',
    correct: childrenOf(declared, 'qti-correct-response')
      .flatMap((one) => childrenOf(one, 'qti-value'))
      .map((value) => wordsOf(value.children)),
    worth: new Map(
      childrenOf(declared, 'qti-mapping')
        .flatMap((one) => childrenOf(one, 'qti-map-entry'))
        .map(({ attributes }) => [
          (attributes['map-key'] ?? '').replace(/\s+/g, ' ').trim(),
          Number(attributes['mapped-value']),
        ]),
    ),
  });
  if (typeof part === 'string') return leftOut(part);
  const { markdown, lost } = markdownOf([
    ...without(body, interaction),
    ...childrenOf(interaction, 'qti-prompt'),
  ]);
  if (lost.length > 0) notes.push(`what is no text (${lost.slice(0, 5).join(', ')})`);
  const feedback = childrenOf(root, 'qti-modal-feedback').map(({ children }) => wordsOf(children));
  if (feedback.length > 1) notes.push('who gets which of its explanations: all stand in one');
  const read = readQuestion({
    id: randomUUID(),
    text: markdown === '' ? (root.attributes.title ?? '') : markdown,
    points,
    feedback: feedback.join(' ').slice(0, 1000),
    ...part,
  });
  return 'problem' in read ? leftOut(lowered(read.problem)) : { kind: 'question', question: read, notes };
}

const lowered = (sentence: string): string =>
  (sentence.charAt(0).toLowerCase() + sentence.slice(1)).replace(/\.$/, '');

const allIn = (root: XmlElement): readonly XmlElement[] =>
  root.children.flatMap((child) => (child.kind === 'text' ? [] : [child, ...allIn(child)]));

/** What is in an element, without another one somewhere in it. */
function without(root: XmlElement, gone: XmlElement): readonly XmlNode[] {
  return root.children.flatMap((child): readonly XmlNode[] => {
    if (child === gone) return [];
    if (child.kind === 'text') return [child];
    const children = without(child, gone);
    // What held nothing else stands for nothing.
    const isEmpty =
      child.children.length > 0 && children.every((one) => one.kind === 'text' && !one.text.trim());
    return isEmpty ? [] : [{ ...child, children }];
  });
}

const FEEDBACK = ['qti-feedback-inline', 'qti-feedback-block'];

/** What is chosen from: by identifier, with its words and what is said to whoever chooses it. */
const choicesIn = (interaction: XmlElement) =>
  elementsIn(interaction, 'qti-simple-choice').map((choice) => ({
    identifier: choice.attributes.identifier ?? '',
    text: wordsOf(choice.children.filter((one) => one.kind === 'text' || !FEEDBACK.includes(one.name))),
    feedback: elementsIn(choice, ...FEEDBACK)
      .map(({ children }) => wordsOf(children))
      .join(' '),
  }));

function choiceOf({ interaction, correct, worth }: Read): Part | string {
  const isRight = (identifier: string) => correct.includes(identifier) || (worth.get(identifier) ?? 0) > 0;
  const options = choicesIn(interaction).map(({ identifier, text, feedback }) => ({
    text,
    feedback: feedback.slice(0, 1000),
    right: isRight(identifier),
  }));
  if (!options.some(({ right }) => right)) return NO_ANSWER;
  const single = (interaction.attributes['max-choices'] ?? '1') === '1';
  return { kind: single ? 'one' : 'several', options };
}

function entryOf({ baseType, correct, worth, root, notes }: Read): Part | string {
  const [first] = correct;
  if (baseType === 'float' || baseType === 'integer') {
    const right = Number(first);
    if (first === undefined || first === '' || !Number.isFinite(right)) return NO_ANSWER;
    return { kind: 'number', right, tolerance: toleranceOf(root, right) };
  }
  const accepted = [
    ...new Set([...correct, ...[...worth].flatMap(([key, value]) => (value > 0 ? [key] : []))]),
  ].filter((one) => one !== '');
  if (accepted.length === 0) return NO_ANSWER;
  if (elementsIn(root, 'qti-map-entry').some(({ attributes }) => attributes['case-sensitive'] !== 'false'))
    notes.push('that capital letters make a difference');
  return { kind: 'text', accepted };
}

/** How far from right is right still: as an amount, whatever it is given as. */
function toleranceOf(root: XmlElement, right: number): number {
  const [equal] = elementsIn(root, 'qti-equal');
  const { 'tolerance-mode': mode, tolerance = '' } = equal?.attributes ?? {};
  const most = Math.max(0, ...tolerance.trim().split(/\s+/).map(Number).filter(Number.isFinite));
  return mode === 'absolute' ? most : mode === 'relative' ? (Math.abs(right) * most) / 100 : 0;
}

function orderOf({ interaction, correct }: Read): Part | string {
  const texts = new Map(choicesIn(interaction).map(({ identifier, text }) => [identifier, text]));
  const steps = correct.flatMap((identifier) => texts.get(identifier) ?? []);
  return steps.length < texts.size || steps.length === 0 ? NO_ANSWER : { kind: 'order', steps };
}

function matchOf({ interaction, correct, worth, notes }: Read): Part | string {
  const [lefts, rights] = childrenOf(interaction, 'qti-simple-match-set').map(
    (set) =>
      new Map(
        childrenOf(set, 'qti-simple-associable-choice').map(({ attributes, children }) => [
          attributes.identifier ?? '',
          wordsOf(children),
        ]),
      ),
  );
  if (!lefts || !rights) return 'it has nothing to put together';
  const keys = correct.length > 0 ? correct : [...worth].flatMap(([key, value]) => (value > 0 ? [key] : []));
  const belongs = keys.map((key) => key.split(' '));
  const pairs = [...lefts].flatMap(([identifier, left]) => {
    const found = belongs.filter(([one]) => one === identifier);
    const right = rights.get(found[0]?.[1] ?? '');
    return found.length === 1 && right !== undefined ? [{ left, right }] : [];
  });
  if (pairs.length < lefts.size) return 'what belongs to what is not one to one in it';
  if (new Set(pairs.map(({ right }) => right)).size < rights.size)
    notes.push('what belongs to nothing and is there to mislead');
  return { kind: 'pairs', pairs };
}
