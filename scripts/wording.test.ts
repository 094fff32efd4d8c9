/** What visitors read of Trivet itself is in the catalogues of messages, and nowhere else. */
import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { expect, it } from 'vitest';

const filesIn = (folder: string): readonly string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => /\.tsx?$/.test(path) && !path.includes('.test.'))
    .map((path) => `${folder}/${path}`);

function parsed(path: string): ts.SourceFile {
  return ts.createSourceFile(
    path,
    readFileSync(path, 'utf8'),
    ts.ScriptTarget.Latest,
    true,
    ts.ScriptKind.TSX,
  );
}

function* within(node: ts.Node): Generator<ts.Node> {
  yield node;
  for (const child of node.getChildren()) yield* within(child);
}

// What owners alone see, before there is a site and on a walk.
const FOR_OWNERS = ['bare', 'begin-views', 'would-view'];

const ATTRIBUTES = ['aria-label', 'alt', 'label', 'title', 'placeholder'];

const isWord = (text: string): boolean => /\p{L}{2}/u.test(text);

function isAmongElements(node: ts.Node): boolean {
  if (ts.isBinaryExpression(node.parent) && /^[!=]==$/.test(node.parent.operatorToken.getText()))
    return false;
  for (let at: ts.Node = node; at.parent; at = at.parent) {
    if (ts.isJsxAttribute(at) || ts.isCallExpression(at)) return false;
    if (ts.isJsxExpression(at)) return ts.isJsxElement(at.parent) || ts.isJsxFragment(at.parent);
  }
  return false;
}

it('draws no words of its own', () => {
  const own: string[] = [];
  const files = filesIn('src/site').filter((path) => !FOR_OWNERS.some((name) => path.includes(`/${name}.`)));
  for (const path of files)
    for (const node of within(parsed(path))) {
      if (ts.isJsxText(node) && isWord(node.text)) own.push(`${path}: ${node.text.trim()}`);
      if (ts.isJsxAttribute(node) && ATTRIBUTES.includes(node.name.getText())) {
        const value = node.initializer;
        if (value && ts.isStringLiteral(value) && isWord(value.text)) own.push(`${path}: ${value.text}`);
      }
      // A text in braces among elements, but for what it is compared with.
      if (ts.isStringLiteral(node) && isAmongElements(node) && isWord(node.text))
        own.push(`${path}: ${node.text}`);
    }
  expect(files.length).toBeGreaterThan(25);
  expect(own).toEqual([]);
});

const isSentence = (text: string): boolean => /^\p{Lu}.* .*[.!?…:]$/su.test(text);

/** Whether a text is for logs and for whoever wrote the program, or notes in History what was done. */
function isNoMessage(node: ts.Node): boolean {
  for (let at: ts.Node = node; at.parent; at = at.parent) {
    const call = at.parent;
    const isSuper = ts.isCallExpression(call) && call.expression.kind === ts.SyntaxKind.SuperKeyword;
    if (isSuper || ts.isNewExpression(at.parent) || ts.isThrowStatement(at.parent)) return true;
    if (ts.isPropertyAssignment(at.parent) && at.parent.name.getText() === 'summary') return true;
  }
  return false;
}

// Refusals that undo a change: whoever waits for it is answered by the door.
const NOT_SHOWN = new Set([
  'This account is gone.',
  'That group is not open any more.',
  'There is no such course to enrol in any more.',
  'This is not open.',
  'There is no such activity any more.',
]);

/** What serves visitors. */
const forVisitors = (): readonly string[] => [
  ...filesIn('src/services/view'),
  ...filesIn('src/services/visiting'),
  ...['own-purchases', 'change-plan', 'set-out', 'order-at', 'letters'].map(
    (name) => `src/services/selling/${name}.ts`,
  ),
];

it('says no sentences of its own to visitors', () => {
  const own: string[] = [];
  const files = forVisitors();
  for (const path of files)
    for (const node of within(parsed(path))) {
      const text = ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) ? node.text : null;
      const whole = text ?? (ts.isTemplateExpression(node) ? node.getText().slice(1, -1) : '');
      if (isSentence(whole) && !isNoMessage(node) && !NOT_SHOWN.has(whole)) own.push(`${path}: ${whole}`);
    }
  expect(files.length).toBeGreaterThan(40);
  expect(own).toEqual([]);
});

it('writes days, sums and lists to visitors as their language does', () => {
  const english =
    /import \{[^}]*\b(?:dayInWords|moneyInWords|priceInWords|counted|listed|english)\b[^}]*\} from '@\/core'/;
  const files = [...forVisitors(), ...filesIn('src/site'), ...filesIn('src/app/_doors')];
  // What is for whoever writes programs, and for owners before there is a site.
  const others = files.filter((path) => !/\/_doors\/(?:api\/|begin)|\/wording\./.test(path));
  expect(others.filter((path) => english.test(readFileSync(path, 'utf8')))).toEqual([]);
});
