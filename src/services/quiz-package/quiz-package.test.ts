/** Quizzes as QTI 3.0 packages: by the rules of the published schema, there and back, and whatever else somebody brings. */
import * as fc from 'fast-check';
import { zipSync } from 'fflate';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { leftOutOfPackage, newQuiz, type Quiz } from '@/core';
import { quizzes } from '@/core/testing/quizzes';
import { type Administrator, exportQuiz, type PackageRead, readQuizPackage, type Trivet } from '..';
import { gretaAt, openLarkfell } from '../testing';
import { type QuestionRead, readQuestion } from '../writing';
import { bodyOf } from './markup';
import { readItem } from './read-item';
import { itemXml } from './write-item';
import { packageOf } from './write-package';
import { elementsIn, readXml, type XmlElement } from './xml';
import { unzipped, zipped } from './zip';

let trivet: Trivet;
let greta: Administrator;
beforeAll(async () => {
  trivet = await openLarkfell();
  greta = await gretaAt(trivet);
});
afterAll(() => trivet.close());

const QUIZ = 'first-opening-quiz';
const take = (files: Readonly<Record<string, string>>): Promise<PackageRead> =>
  readQuizPackage(trivet, greta, QUIZ, zipped(files));
const xml = (text: string): XmlElement => {
  const root = readXml(text);
  if ('problem' in root) throw new Error(root.problem);
  return root;
};

/** How many spaces there are makes no difference in XML. */
const oneSpace = (question: object): unknown =>
  JSON.parse(JSON.stringify(question), (_, value) =>
    typeof value === 'string' ? value.replace(/\s+/g, ' ') : value,
  );

/** Questions as they are kept, whose texts say something. */
const kept = quizzes.map((quiz): Quiz => {
  const questions = quiz.questions.flatMap((one) => {
    const read = readQuestion(oneSpace(one));
    return 'problem' in read || !/[a-z0-9]/i.test(bodyOf(read.text).replace(/<[^>]*>|&#\w+;/g, ''))
      ? []
      : [read];
  });
  return { ...quiz, questions: questions as Quiz['questions'] };
});

/** What elements may hold and must have (QTI 3.0 ASI schema), for those that are written: children in their order. */
const SCHEMA: Readonly<Record<string, { readonly has?: readonly string[]; readonly holds?: RegExp }>> = {
  'qti-assessment-test': {
    has: ['identifier', 'title'],
    holds: /^(qti-outcome-declaration )*(qti-time-limits )?(qti-test-part )+(qti-outcome-processing )?$/,
  },
  'qti-time-limits': { has: ['max-time'], holds: /^$/ },
  'qti-test-part': {
    has: ['identifier', 'navigation-mode', 'submission-mode'],
    holds: /^(qti-assessment-section )+$/,
  },
  'qti-assessment-section': {
    has: ['identifier', 'title', 'visible'],
    holds: /^(qti-selection )?(qti-ordering )?(qti-assessment-item-ref )*$/,
  },
  'qti-assessment-item-ref': { has: ['identifier', 'href'], holds: /^(qti-weight )*$/ },
  'qti-weight': { has: ['identifier', 'value'], holds: /^$/ },
  'qti-selection': { has: ['select'], holds: /^$/ },
  'qti-ordering': { has: ['shuffle'], holds: /^$/ },
  'qti-outcome-processing': { holds: /^(qti-set-outcome-value )+$/ },
  'qti-assessment-item': {
    has: ['identifier', 'title', 'adaptive', 'time-dependent'],
    holds:
      /^(qti-response-declaration )*(qti-outcome-declaration )*qti-item-body qti-response-processing (qti-modal-feedback )*$/,
  },
  'qti-response-declaration': {
    has: ['identifier', 'cardinality', 'base-type'],
    holds: /^qti-correct-response (qti-mapping )?$/,
  },
  'qti-outcome-declaration': {
    has: ['identifier', 'cardinality', 'base-type'],
    holds: /^(qti-default-value )?$/,
  },
  'qti-correct-response': { holds: /^(qti-value )+$/ },
  'qti-default-value': { holds: /^(qti-value )+$/ },
  'qti-value': { holds: /^$/ },
  'qti-mapping': { has: ['default-value'], holds: /^(qti-map-entry )+$/ },
  'qti-map-entry': { has: ['map-key', 'mapped-value'], holds: /^$/ },
  'qti-choice-interaction': {
    has: ['response-identifier', 'max-choices'],
    holds: /^(qti-simple-choice )+$/,
  },
  'qti-order-interaction': { has: ['response-identifier'], holds: /^(qti-simple-choice )+$/ },
  'qti-simple-choice': { has: ['identifier'], holds: /^(qti-feedback-inline )?$/ },
  'qti-feedback-inline': { has: ['outcome-identifier', 'identifier', 'show-hide'] },
  'qti-text-entry-interaction': { has: ['response-identifier'], holds: /^$/ },
  'qti-match-interaction': {
    has: ['response-identifier', 'max-associations'],
    holds: /^qti-simple-match-set qti-simple-match-set $/,
  },
  'qti-simple-match-set': { holds: /^(qti-simple-associable-choice )+$/ },
  'qti-simple-associable-choice': { has: ['identifier', 'match-max'], holds: /^$/ },
  'qti-response-processing': { holds: /^((qti-response-condition|qti-set-outcome-value) )+$/ },
  'qti-response-condition': { holds: /^qti-response-if $/ },
  'qti-response-if': { holds: /^(qti-match|qti-equal) (qti-set-outcome-value )+$/ },
  'qti-match': { holds: /^qti-variable qti-correct $/ },
  'qti-equal': { has: ['tolerance-mode'], holds: /^qti-variable qti-correct $/ },
  'qti-set-outcome-value': { has: ['identifier'] },
  'qti-base-value': { has: ['base-type'], holds: /^$/ },
  'qti-variable': { has: ['identifier'], holds: /^$/ },
  'qti-correct': { has: ['identifier'], holds: /^$/ },
  'qti-map-response': { has: ['identifier'], holds: /^$/ },
  'qti-sum': { holds: /^(qti-test-variables )+$/ },
  'qti-test-variables': { has: ['variable-identifier', 'weight-identifier'], holds: /^$/ },
  'qti-modal-feedback': {
    has: ['outcome-identifier', 'identifier', 'show-hide'],
    holds: /^qti-content-body $/,
  },
  'qti-content-body': {},
  'qti-item-body': {},
  manifest: { has: ['identifier'], holds: /^metadata organizations resources $/ },
  metadata: { holds: /^schema schemaversion $/ },
  schema: {},
  schemaversion: {},
  organizations: { holds: /^$/ },
  resources: { holds: /^(resource )+$/ },
  resource: { has: ['identifier', 'type', 'href'], holds: /^(file )+(dependency )*$/ },
  file: { has: ['href'], holds: /^$/ },
  dependency: { has: ['identifierref'], holds: /^$/ },
};
const TEXT = /^(p|em|strong|ul|ol|li|blockquote|code|pre|br|hr|h[1-6]|a|table|thead|tbody|tr|th|td)$/;

/** What of a document is against the rules. */
function broken(root: XmlElement): readonly string[] {
  const { name, attributes, children } = root;
  const rule = SCHEMA[name];
  const inside = children.filter((child) => child.kind === 'element');
  const names = inside.map((child) => `${child.name} `).join('');
  const identifiers = Object.entries(attributes).filter(([key]) => /(^|-)identifier$/.test(key));
  return [
    ...(rule || TEXT.test(name) ? [] : [`there is no ${name}`]),
    ...(rule?.has ?? []).filter((key) => attributes[key] === undefined).map((key) => `${name} has no ${key}`),
    ...(rule?.holds && !rule.holds.test(names) ? [`${name} holds ${names}`] : []),
    ...identifiers
      .filter(([, value]) => !/^[A-Za-z_][\w.-]*$/.test(value))
      .map(([key, value]) => `${name} ${key}="${value}"`),
    ...inside.flatMap(broken),
  ];
}

describe('a quiz that goes out', () => {
  it('follows the rules of the schema, whatever is asked', () => {
    fc.assert(
      fc.property(kept, (quiz) => {
        for (const text of Object.values(packageOf(quiz, 'Ready & “able”?')))
          expect(broken(xml(text))).toEqual([]);
      }),
    );
  });

  it('names in its manifest exactly the files that it holds', () => {
    fc.assert(
      fc.property(kept, (quiz) => {
        const { 'imsmanifest.xml': manifest = '', ...files } = packageOf(quiz, 'Quiz');
        const hrefs = elementsIn(xml(manifest), 'file').map(({ attributes }) => attributes.href);
        expect(hrefs.toSorted()).toEqual(Object.keys(files).toSorted());
      }),
    );
  });

  it('is the same bytes for the same quiz, and for those who may write it', async () => {
    const made = exportQuiz(trivet, greta, QUIZ);
    expect(made).toEqual(exportQuiz(trivet, greta, QUIZ));
    const files = await unzipped(made ?? new Uint8Array());
    expect([...(files as ReadonlyMap<string, string>).keys()]).toContain('items/q8.xml');
    expect(exportQuiz(trivet, greta, 'ladder-safety')).toBeNull();
  });

  it('says what has no place in a package', () => {
    expect(leftOutOfPackage({ ...newQuiz, passMark: 0 })).toEqual([]);
    expect(
      leftOutOfPackage({ ...newQuiz, attempts: 3, wait: 5, counts: 'last', answers: 'never' }),
    ).toHaveLength(5);
  });
});

/** A question as it comes back: its text as it is shown, since Markdown has several ways to say the same. */
const compared = ({ id: _, text, ...rest }: QuestionRead | Quiz['questions'][number]) => ({
  ...rest,
  text: bodyOf(text),
});

const emptyText = { id: 'q', kind: 'text', text: '', points: 1, feedback: '', accepted: ['yes'] };

describe('a quiz that comes in', () => {
  it('is what went out, for every kind of question', () => {
    fc.assert(
      fc.property(kept, (quiz) => {
        for (const question of quiz.questions) {
          const back = readItem(xml(itemXml(question, 'q1', 'One')), question.points);
          if (back.kind !== 'question') throw new Error(back.why);
          const { text, ...rest } = compared(back.question);
          const { text: before, ...expected } = compared(question);
          const accepted = question.kind === 'text' ? { accepted: [...new Set(question.accepted)] } : {};
          expect(rest).toEqual({ ...expected, ...accepted });
          expect(text).toBe(before);
          expect(back.notes).toEqual([]);
        }
      }),
      { numRuns: 150 },
    );
  });

  it.each([
    '+@.A',
    'ask@larkfell.example',
    'https://larkfell.example/a_b',
    '[*here*](mailto:ask@larkfell.example)',
    '<bf:.)>C-e',
    'see [*this*](/visit) and [that](x:y)',
  ])('says %s as it did', (text) => {
    const question = { ...emptyText, text } as unknown as Quiz['questions'][number];
    const back = readItem(xml(itemXml(question, 'q1', 'One')), question.points);
    if (back.kind !== 'question') throw new Error(back.why);
    expect(bodyOf(back.question.text)).toBe(bodyOf(text));
  });

  it('comes with its points and with how it is asked', async () => {
    const made = exportQuiz(trivet, greta, QUIZ);
    const quiz = [...trivet.state.contents.values()].find((one) => one.quiz)?.quiz;
    const read = await readQuizPackage(trivet, greta, QUIZ, made ?? new Uint8Array());
    if (read.kind !== 'read' || !quiz) throw new Error('not read');
    expect(read.questions.map(compared)).toEqual(quiz.questions.map(compared));
    expect(read.terms).toEqual({ minutes: quiz.minutes, draw: quiz.draw, shuffle: quiz.shuffle });
    expect(read.notes).toEqual([]);
    // What is taken in are other questions.
    const ids = new Set(quiz.questions.map(({ id }) => id));
    expect(read.questions.some(({ id }) => ids.has(id))).toBe(false);
  });
});

const ITEM = (body: string, declaration = '', more = '') =>
  `<qti-assessment-item xmlns="x" identifier="a" title="Tides" adaptive="false" time-dependent="false">${declaration}<qti-item-body>${body}</qti-item-body>${more}</qti-assessment-item>`;
const DECLARED = (values: string, type = 'identifier') =>
  `<qti-response-declaration identifier="R" cardinality="single" base-type="${type}"><qti-correct-response>${values}</qti-correct-response></qti-response-declaration>`;
const PACKAGE = (...items: readonly string[]) => ({
  'imsmanifest.xml': `<manifest identifier="m"><resources>${items
    .map((_, at) => `<resource identifier="i${at}" type="imsqti_item_xmlv3p0" href="i${at}.xml"/>`)
    .join('')}</resources></manifest>`,
  ...Object.fromEntries(items.map((item, at) => [`i${at}.xml`, item])),
});
const CHOICE = (...options: readonly string[]) =>
  `<p>How <b>often</b> a day?</p><qti-choice-interaction response-identifier="R" max-choices="1"><qti-prompt>Think.</qti-prompt>${options
    .map((text, at) => `<qti-simple-choice identifier="o${at}">${text}</qti-simple-choice>`)
    .join('')}</qti-choice-interaction>`;
const VALUE = (text: string) => `<qti-value>${text}</qti-value>`;

describe('a package from elsewhere', () => {
  it('is taken as far as it fits, and says what of it does not', async () => {
    const read = await take(
      PACKAGE(
        ITEM(CHOICE('Once', 'Twice'), DECLARED(VALUE('o1'))),
        ITEM('<p>Draw it.</p><qti-drawing-interaction response-identifier="R"/>', DECLARED(VALUE('x'))),
        ITEM(`${CHOICE('A', 'B')}${CHOICE('C', 'D')}`, DECLARED(VALUE('o1'))),
        ITEM(CHOICE('Once', 'Twice'), ''),
        ITEM(CHOICE('Once', 'Twice'), DECLARED(VALUE('o9'))),
        ITEM(CHOICE('Once', '<img src="twice.png" alt=""/>'), DECLARED(VALUE('o0'))),
        ITEM(`<img src="moon.png" alt="Moon"/>${CHOICE('Yes', 'No')}`, DECLARED(VALUE('o0'))),
        ITEM(`<p>${'<b>x</b>'.repeat(1200)}</p>${CHOICE('A', 'B')}`, DECLARED(VALUE('o0'))),
        '<assessmentItem xmlns="other" identifier="b" title="Old"/>',
      ),
    );
    if (read.kind !== 'read') throw new Error(read.message);
    expect(read.questions.map(({ kind, text }) => [kind, text])).toEqual([
      ['one', 'How **often** a day?\n\nThink.'],
      ['one', 'How **often** a day?\n\nThink.'],
    ]);
    expect(read.questions[0]).toMatchObject({ options: [{ text: 'Once', right: false }, { right: true }] });
    expect(read.notes).toEqual([
      '“Tides” is left out: it is answered by a way of which there is none here (qti-drawing-interaction).',
      '“Tides” is left out: it asks 2 things at once.',
      '“Tides” is left out: it does not say what is right.',
      '“Tides” is left out: it does not say what is right.',
      '“Tides” is left out: say what there is to choose.',
      'Of “Tides” is left out: what is no text (img).',
      '“Tides” is left out: it is larger than any question here.',
      '“Old” is left out: it is no item of QTI 3.0 but “assessmentItem”.',
    ]);
  });

  it('reads tolerances as amounts', async () => {
    const entry = '<p>How far? <qti-text-entry-interaction response-identifier="R"/> km</p>';
    const equal = (mode: string, tolerance: string) =>
      `<qti-response-processing><qti-response-condition><qti-response-if><qti-equal tolerance-mode="${mode}" tolerance="${tolerance}"/></qti-response-if></qti-response-condition></qti-response-processing>`;
    const read = await take(
      PACKAGE(
        ITEM(entry, DECLARED(VALUE('200'), 'float'), equal('absolute', '5 5')),
        ITEM(entry, DECLARED(VALUE('200'), 'integer'), equal('relative', '10 10')),
        ITEM(entry, DECLARED(VALUE('two'), 'float')),
      ),
    );
    expect(read).toMatchObject({
      questions: [
        { kind: 'number', right: 200, tolerance: 5, text: 'How far? km' },
        { kind: 'number', right: 200, tolerance: 20 },
      ],
      notes: ['“Tides” is left out: it does not say what is right.'],
    });
  });

  it.each<[string, Uint8Array | Readonly<Record<string, string>>, RegExp]>([
    ['nothing', new Uint8Array(), /can’t be read as a ZIP/],
    ['no archive', new TextEncoder().encode('PK but not really'), /can’t be read as a ZIP/],
    ['no manifest', { 'other.xml': '<a/>' }, /no QTI package: there is no imsmanifest\.xml/],
    [
      'a broken manifest',
      { 'imsmanifest.xml': '<manifest><resources>' },
      /can’t be read: line \d+ is no XML/,
    ],
    ['an empty one', { 'imsmanifest.xml': '<manifest/>' }, /no QTI items/],
    [
      'entities',
      { 'imsmanifest.xml': '<!DOCTYPE m [<!ENTITY a "aaaa">]><manifest>&a;</manifest>' },
      /brings a document type/,
    ],
    ['a deep one', { 'imsmanifest.xml': `${'<a>'.repeat(5000)}${'</a>'.repeat(5000)}` }, /more than 60 deep/],
    ['one that is large inside', { 'imsmanifest.xml': ' '.repeat(600_000) }, /too large/],
    [
      'many files',
      Object.fromEntries(Array.from({ length: 1001 }, (_, at) => [`${at}.xml`, ''])),
      /more than 1000 files/,
    ],
  ])('that is %s is refused with a sentence', async (_, files, message) => {
    const bytes = files instanceof Uint8Array ? files : zipped(files);
    const read = await readQuizPackage(trivet, greta, QUIZ, bytes);
    expect(read).toMatchObject({ kind: 'wrong', message: expect.stringMatching(message) });
  });

  it('that is too large is not unpacked, and one that lies about its size is damaged', async () => {
    const large = new Uint8Array(5_000_001);
    expect(await readQuizPackage(trivet, greta, QUIZ, large)).toMatchObject({ kind: 'wrong' });
    const lying = zipSync({ 'imsmanifest.xml': new Uint8Array(400_000) });
    // The size that the directory tells stands 24 bytes into its entry (APPNOTE 4.3.12).
    const buffer = Buffer.from(lying);
    const entry = buffer.lastIndexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    buffer.writeUInt32LE(10, entry + 24);
    expect(await unzipped(buffer)).toEqual({ problem: 'The package is damaged: it can’t be unpacked.' });
  });

  it('leads nowhere outside of itself', async () => {
    const files = {
      ...PACKAGE(),
      'imsmanifest.xml':
        '<manifest><resources><resource identifier="i" type="imsqti_item_xmlv3p0" href="../../etc/passwd.xml"/></resources></manifest>',
    };
    expect(await take(files)).toMatchObject({
      questions: [],
      notes: [expect.stringContaining('not in the package')],
    });
  });

  it('brings no markup into a text', async () => {
    const nasty = ITEM(
      `<p>Which? <script>alert(1)</script><a href="javascript:alert(1)">one</a></p>${CHOICE('&lt;b&gt;bold&lt;/b&gt;', 'B')}`,
      DECLARED(VALUE('o0')),
    );
    const read = await take(PACKAGE(nasty));
    if (read.kind !== 'read') throw new Error(read.message);
    const [question] = read.questions;
    expect(question).toMatchObject({ options: [{ text: '<b>bold</b>' }, { text: 'B' }] });
    expect(bodyOf(question?.text ?? '')).not.toMatch(/<script|javascript:/);
  });
});
