/**
 * Says of the scripts that the desk begins with that they are compiled whole while they arrive, off the main thread (the
 * platform's explicit compile hints): otherwise each function is read over at first, and read again when it is called.
 * Browsers that know nothing of it see a comment.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { runInNewContext } from 'node:vm';

const PAGE = '/desk/[[...screen]]/page';
const HINT = '//# allFunctionsCalledOnLoad\n';

interface ClientReferences {
  readonly __RSC_MANIFEST: Readonly<
    Record<string, { readonly entryJSFiles: Readonly<Record<string, readonly string[]>> }>
  >;
}

const built = (path: string): string => readFileSync(join('.next', path), 'utf8');

const context: Partial<ClientReferences> = {};
runInNewContext(built(`server/app${PAGE}_client-reference-manifest.js`), context);
const { rootMainFiles } = JSON.parse(built('build-manifest.json')) as {
  readonly rootMainFiles: readonly string[];
};
// Its own, and those of what it stands in.
const own = context.__RSC_MANIFEST?.[PAGE]?.entryJSFiles;
if (!own) throw new Error(`The framework says nothing of the scripts of ${PAGE}.`);
const scripts = new Set([...rootMainFiles, ...Object.values(own).flat()]);
for (const script of scripts) {
  const text = built(script);
  if (!text.startsWith(HINT)) writeFileSync(join('.next', script), HINT + text);
}
console.log(`${scripts.size} scripts are compiled as they arrive`);
