/** Builds what the site's pages link to: the style sheet, named by its content, and the fonts. */
import { createHash } from 'node:crypto';
import { copyFileSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import tailwind from '@tailwindcss/postcss';
import postcss from 'postcss';

const source = 'src/site/theme.css';
const fonts = 'node_modules/@fontsource-variable/literata/files';

const { css } = await postcss([tailwind({ optimize: true })]).process(readFileSync(source, 'utf8'), {
  from: source,
});
const name = `site.${createHash('sha256').update(css).digest('hex').slice(0, 10)}.css`;
rmSync('public/assets', { recursive: true, force: true });
mkdirSync('public/assets', { recursive: true });
writeFileSync(`public/assets/${name}`, css);
writeFileSync('public/assets/site.json', JSON.stringify({ stylesheet: `/assets/${name}` }));
copyFileSync(`${fonts}/literata-latin-wght-normal.woff2`, 'public/assets/literata.woff2');
copyFileSync(`${fonts}/literata-latin-wght-italic.woff2`, 'public/assets/literata-italic.woff2');
console.log(`public/assets/${name}: ${css.length} bytes`);
