/**
 * Which mutants no test noticed, and how many were killed; after `mutants.mjs` has tried them. Whether a mutant compiles is
 * asked of those that survived alone, since the compiler takes longer than the tests; one that it refuses is no mutant.
 */
import { readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import ts from 'typescript';

interface Position {
  readonly line: number;
  readonly column: number;
}

interface Mutant {
  readonly path: string;
  readonly mutatorName: string;
  readonly replacement: string;
  readonly status: string;
  readonly location: { readonly start: Position; readonly end: Position };
}

const LEAST = 90;
const FILE = 'test-results/mutants/mutants.json';
const SURVIVED = ['Survived', 'NoCoverage'];
const KILLED = ['Killed', 'Timeout'];

const offsetOf = (text: string, { line, column }: Position): number =>
  text.split('\n', line - 1).reduce((sum, one) => sum + one.length + 1, 0) + column - 1;

/** Answers whether core compiles with a file as it is given. */
function compiler(): (path: string, text: string) => boolean {
  const { config } = ts.readConfigFile('src/core/tsconfig.json', ts.sys.readFile);
  const { options, fileNames } = ts.parseJsonConfigFileContent(config, ts.sys, 'src/core');
  const changed = new Map<string, { readonly text: string; readonly version: number }>();
  let version = 0;
  const service = ts.createLanguageService({
    fileExists: ts.sys.fileExists,
    readFile: ts.sys.readFile,
    readDirectory: ts.sys.readDirectory,
    directoryExists: ts.sys.directoryExists,
    getDirectories: ts.sys.getDirectories,
    getCurrentDirectory: () => process.cwd(),
    getCompilationSettings: () => options,
    getScriptFileNames: () => fileNames,
    getScriptVersion: (path) => String(changed.get(resolve(path))?.version ?? 0),
    getScriptSnapshot: (path) => {
      const text = changed.get(resolve(path))?.text ?? ts.sys.readFile(path);
      return text === undefined ? undefined : ts.ScriptSnapshot.fromString(text);
    },
    getDefaultLibFileName: ts.getDefaultLibFilePath,
  });
  const set = (path: string, text: string) => {
    version += 1;
    changed.set(resolve(path), { text, version });
  };
  return (path, text) => {
    const before = readFileSync(path, 'utf8');
    set(path, text);
    // What goes wrong mostly goes wrong where it was changed.
    const compiles = [path, ...fileNames].every((file) => service.getSemanticDiagnostics(file).length === 0);
    set(path, before);
    return compiles;
  };
}

const mutants = JSON.parse(readFileSync(FILE, 'utf8')) as readonly Mutant[];
const compiles = compiler();
const killed = mutants.filter(({ status }) => KILLED.includes(status)).length;
let survived = 0;
for (const { path, status, location, replacement, mutatorName } of mutants) {
  if (!SURVIVED.includes(status)) continue;
  const source = readFileSync(path, 'utf8');
  const [from, to] = [offsetOf(source, location.start), offsetOf(source, location.end)];
  if (!compiles(path, source.slice(0, from) + replacement + source.slice(to))) continue;
  survived += 1;
  const short = (text: string) => text.replace(/\s+/g, ' ').slice(0, 100);
  console.log(`\n${path}:${location.start.line}:${location.start.column}  ${mutatorName}`);
  console.log(`  - ${short(source.slice(from, to))}\n  + ${short(replacement)}`);
}
const score = (100 * killed) / (killed + survived);
console.log(`\n${killed} killed, ${survived} survived: ${score.toFixed(1)} % (at least ${LEAST})`);
process.exitCode = score < LEAST ? 1 : 0;
