/** A quiz as a QTI 3.0 package: a manifest, a test with its terms, and an item a question. */
import type { Quiz } from '@/core';
import { ITEM_TYPE, MANIFEST, NAMESPACE, PACKAGE_NAMESPACE, TEST_TYPE } from './qti';
import { itemXml } from './write-item';
import { escaped } from './xml';

const HEAD = '<?xml version="1.0" encoding="UTF-8"?>\n';
const itemId = (at: number): string => `q${at + 1}`;
const itemPath = (at: number): string => `items/${itemId(at)}.xml`;

/** The files of a package by their paths. */
export const packageOf = (quiz: Quiz, title: string): Readonly<Record<string, string>> => ({
  [MANIFEST]: manifestXml(quiz),
  'test.xml': testXml(quiz, title),
  ...Object.fromEntries(
    quiz.questions.map((question, at) => [
      itemPath(at),
      itemXml(question, itemId(at), `${title}, ${at + 1}`),
    ]),
  ),
});

const manifestXml = ({ questions }: Quiz): string =>
  `${HEAD}<manifest xmlns="${PACKAGE_NAMESPACE}" identifier="package">
<metadata><schema>QTI Package</schema><schemaversion>3.0.0</schemaversion></metadata>
<organizations/>
<resources>
<resource identifier="test" type="${TEST_TYPE}" href="test.xml"><file href="test.xml"/>${questions
    .map((_, at) => `<dependency identifierref="${itemId(at)}"/>`)
    .join('')}</resource>
${questions
  .map(
    (_, at) =>
      `<resource identifier="${itemId(at)}" type="${ITEM_TYPE}" href="${itemPath(at)}"><file href="${itemPath(at)}"/></resource>`,
  )
  .join('\n')}
</resources>
</manifest>
`;

function testXml({ questions, minutes, draw, shuffle }: Quiz, title: string): string {
  const drawn = draw !== null && draw < questions.length ? draw : null;
  return `${HEAD}<qti-assessment-test xmlns="${NAMESPACE}" identifier="test" title="${escaped(title)}">
${outcomeOfTest}
${minutes === null ? '' : `<qti-time-limits max-time="${minutes * 60}"/>\n`}<qti-test-part identifier="part" navigation-mode="nonlinear" submission-mode="simultaneous">
<qti-assessment-section identifier="section" title="${escaped(title)}" visible="true">
${drawn === null ? '' : `<qti-selection select="${drawn}"/>\n`}${shuffle ? '<qti-ordering shuffle="true"/>\n' : ''}${questions
  .map(
    ({ points }, at) =>
      `<qti-assessment-item-ref identifier="${itemId(at)}" href="${itemPath(at)}"><qti-weight identifier="POINTS" value="${points}"/></qti-assessment-item-ref>`,
  )
  .join('\n')}
</qti-assessment-section>
</qti-test-part>
<qti-outcome-processing><qti-set-outcome-value identifier="SCORE"><qti-sum><qti-test-variables variable-identifier="SCORE" weight-identifier="POINTS"/></qti-sum></qti-set-outcome-value></qti-outcome-processing>
</qti-assessment-test>
`;
}

const outcomeOfTest =
  '<qti-outcome-declaration identifier="SCORE" cardinality="single" base-type="float"><qti-default-value><qti-value>0</qti-value></qti-default-value></qti-outcome-declaration>';
