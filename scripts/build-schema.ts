/** Writes the published JSON Schema of site files. The tests hold it against what the code says. */
import { writeFileSync } from 'node:fs';
import { siteFileSchema } from '../src/services';

writeFileSync('docs/site-file.schema.json', `${JSON.stringify(siteFileSchema(), null, 2)}\n`);
