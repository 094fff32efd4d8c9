/** A QTI 3.0 package as questions of a quiz. Nothing is written: whoever edits the quiz puts them where they belong. */
import { asId } from '@/core';
import { type Administrator, requirePermissionAt, type Trivet, yielder } from '../running';
import type { QuestionRead } from '../writing';
import { ITEM_TYPE, MANIFEST, TEST_TYPE } from './qti';
import { readItem } from './read-item';
import { childrenOf, elementsIn, readXml, type XmlElement } from './xml';
import { unzipped } from './zip';

/** In bytes. */
export const LARGEST_PACKAGE = 5_000_000;

const MOST_QUESTIONS = 200;
const MOST_NOTES = 50;

export type PackageRead =
  | {
      readonly kind: 'read';
      readonly questions: readonly QuestionRead[];
      /** What the package says of how they are asked; null where it says nothing. */
      readonly terms: {
        readonly minutes: number | null;
        readonly draw: number | null;
        readonly shuffle: boolean;
      } | null;
      /** What could not be kept, and of which item. */
      readonly notes: readonly string[];
    }
  | { readonly kind: 'wrong'; readonly message: string };

const wrong = (message: string): PackageRead => ({ kind: 'wrong', message });

/** An item to be read: where it is, and what it counts for. */
interface Listed {
  readonly path: string;
  readonly points: number;
}

/** Reads a package for somebody who writes the quiz. */
export async function readQuizPackage(
  trivet: Trivet,
  administrator: Administrator,
  activity: string,
  bytes: Uint8Array,
): Promise<PackageRead> {
  requirePermissionAt(administrator, trivet.state.outline, [asId(activity)], 'content');
  if (bytes.length > LARGEST_PACKAGE)
    return wrong(`That package is larger than ${LARGEST_PACKAGE / 1_000_000} MB. Cut it into several.`);
  const files = await unzipped(bytes);
  if ('problem' in files) return wrong(files.problem);
  const manifestText = files.get(MANIFEST);
  if (manifestText === undefined)
    return wrong(`That is no QTI package: there is no ${MANIFEST} at the top of it.`);
  const manifest = readXml(manifestText);
  if ('problem' in manifest) return wrong(`${MANIFEST} can’t be read: ${manifest.problem}.`);
  const notes: string[] = [];
  const listed = listOf(manifest, files, notes);
  if (listed.items.length === 0) return wrong('There are no QTI items in that package.');
  const rest = yielder();
  const questions: QuestionRead[] = [];
  for (const { path, points } of listed.items.slice(0, MOST_QUESTIONS)) {
    await rest();
    const text = files.get(path);
    const root = text === undefined ? { problem: 'it is not in the package' } : readXml(text);
    if ('problem' in root) {
      notes.push(`${path} is left out: ${root.problem}.`);
      continue;
    }
    const name = (root.attributes.title ?? '').slice(0, 80) || path;
    const read = readItem(root, points);
    if (read.kind === 'left out') notes.push(`“${name}” is left out: ${read.why}.`);
    else {
      questions.push(read.question);
      notes.push(...read.notes.map((note) => `Of “${name}” is left out: ${note}.`));
    }
  }
  if (listed.items.length > MOST_QUESTIONS)
    notes.push(`A quiz has at most ${MOST_QUESTIONS} questions: the others are left out.`);
  const more = notes.length - MOST_NOTES;
  return {
    kind: 'read',
    questions,
    terms: listed.terms && {
      ...listed.terms,
      draw: listed.terms.draw !== null && listed.terms.draw < questions.length ? listed.terms.draw : null,
    },
    notes: more > 0 ? [...notes.slice(0, MOST_NOTES), `And ${more} more.`] : notes,
  };
}

type Terms = Extract<PackageRead, { kind: 'read' }>['terms'];

/** The items of a package: as its test has them, or as they stand in its manifest. */
function listOf(
  manifest: XmlElement,
  files: ReadonlyMap<string, string>,
  notes: string[],
): { readonly items: readonly Listed[]; readonly terms: Terms } {
  const resources = elementsIn(manifest, 'resource');
  const hrefs = (type: string) =>
    resources.flatMap(({ attributes }) =>
      attributes.type === type && attributes.href ? [pathFrom('', attributes.href)] : [],
    );
  const [path, ...others] = hrefs(TEST_TYPE);
  if (others.length > 0) notes.push('There is more than one test in the package; the first is taken.');
  const text = path === undefined ? undefined : files.get(path);
  const test = text === undefined ? null : readXml(text);
  if (path === undefined || test === null || 'problem' in test) {
    if (test && 'problem' in test) notes.push(`${path} can’t be read: ${test.problem}. Its items are taken.`);
    return { items: hrefs(ITEM_TYPE).map((item) => ({ path: item, points: 1 })), terms: null };
  }
  const items = elementsIn(test, 'qti-assessment-item-ref').flatMap((ref): Listed[] => {
    const { href } = ref.attributes;
    const [weight] = childrenOf(ref, 'qti-weight');
    const points = Number(weight?.attributes.value ?? 1);
    return href ? [{ path: pathFrom(path, href), points: points > 0 && points <= 100 ? points : 1 }] : [];
  });
  return { items, terms: termsOf(test, notes) };
}

function termsOf(test: XmlElement, notes: string[]): Terms {
  const sections = elementsIn(test, 'qti-assessment-section');
  if (sections.length > 1) notes.push('Its sections are left out: all questions stand in one list.');
  if (elementsIn(test, 'qti-pre-condition', 'qti-branch-rule').length > 0)
    notes.push('That some questions depend on the answers to others is left out.');
  const [limits] = childrenOf(test, 'qti-time-limits');
  const seconds = Number(limits?.attributes['max-time'] ?? 0);
  const [section] = sections;
  const selection = sections.length === 1 && section ? childrenOf(section, 'qti-selection')[0] : undefined;
  const draw = Number(selection?.attributes.select ?? 0);
  return {
    minutes: seconds > 0 ? Math.min(24 * 60, Math.ceil(seconds / 60)) : null,
    draw: Number.isInteger(draw) && draw > 0 ? draw : null,
    shuffle: elementsIn(test, 'qti-ordering').some(({ attributes }) => attributes.shuffle === 'true'),
  };
}

/** A path within the package, as it is written in a file of it. */
const pathFrom = (file: string, href: string): string => {
  const base = new URL(`package:///${encodeURI(file)}`);
  if (!URL.canParse(href, base)) return href;
  try {
    return decodeURIComponent(new URL(href, base).pathname).replace(/^\/+/, '');
  } catch {
    return href;
  }
};
