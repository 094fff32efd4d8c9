/** Builds what the site's pages link to: the style sheet and the scripts of quizzes and videos, named by their content, and the fonts. */
import { createHash } from 'node:crypto';
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import tailwind from '@tailwindcss/postcss';
import { buildSync } from 'esbuild';
import postcss from 'postcss';

const source = 'src/site/theme.css';
const fonts = 'node_modules/@fontsource-variable/literata/files';

const { css } = await postcss([tailwind({ optimize: true })]).process(readFileSync(source, 'utf8'), {
  from: source,
});
const scriptAt = (entry: string): string =>
  buildSync({
    entryPoints: [entry],
    bundle: true,
    minify: true,
    write: false,
    format: 'iife',
    target: 'es2022',
  }).outputFiles[0]?.text ?? '';
const attempt = scriptAt('src/site/scripts/attempt.ts');
const watch = scriptAt('src/site/scripts/watch.ts');
const named = (name: string, text: string, extension: string) =>
  `${name}.${createHash('sha256').update(text).digest('hex').slice(0, 10)}.${extension}`;
const name = named('site', css, 'css');
const attemptName = named('attempt', attempt, 'js');
const watchName = named('watch', watch, 'js');
rmSync('public/assets', { recursive: true, force: true });
mkdirSync('public/assets', { recursive: true });
writeFileSync(`public/assets/${name}`, css);
writeFileSync(`public/assets/${attemptName}`, attempt);
writeFileSync(`public/assets/${watchName}`, watch);
writeFileSync(
  'public/assets/site.json',
  JSON.stringify({
    stylesheet: `/assets/${name}`,
    attemptScript: `/assets/${attemptName}`,
    watchScript: `/assets/${watchName}`,
    watchDigest: `sha256-${createHash('sha256').update(watch).digest('base64')}`,
  }),
);
copyFileSync(`${fonts}/literata-latin-wght-normal.woff2`, 'public/assets/literata.woff2');
copyFileSync(`${fonts}/literata-latin-wght-italic.woff2`, 'public/assets/literata-italic.woff2');
console.log(`public/assets/${name}: ${css.length} bytes`);
