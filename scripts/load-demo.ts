/**
 * Loads the demo site through the service that loads anybody's site. Starts from nothing each time unless told to
 * `--keep`; erases only a data folder that was made as a demo.
 */
import { existsSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { larkfellOn } from '../demo/larkfell';
import { workOn } from '../demo/work';
import { databaseIn, importSite, readEnvironment, Trivet } from '../src/services';
import { insertHandIn } from '../src/store';
import { claimDataFolder } from './data-folder';

async function load(keep: boolean): Promise<readonly string[]> {
  const env = readEnvironment(process.env);
  if ('problems' in env) return env.problems;
  const { dataFolder } = env;
  const claim = claimDataFolder(dataFolder);
  if ('problem' in claim) return [claim.problem];
  try {
    const database = databaseIn(dataFolder);
    const mark = join(dataFolder, 'is-a-demo');
    if (existsSync(database) && !existsSync(mark)) {
      return [
        `The data folder ${dataFolder} holds a site that is not the demo. Name another folder with TRIVET_DATA.`,
      ];
    }
    if (keep && existsSync(database)) return [];
    rmSync(database, { recursive: true, force: true });
    rmSync(join(dataFolder, 'till.json'), { force: true });
    writeFileSync(mark, 'Everybody here has the password larkfell-demo. This folder may be erased.\n');
    const trivet = await Trivet.open(database);
    const today = new Date().toISOString().slice(0, 10);
    const problems = await importSite(trivet, larkfellOn(today), 'The demo');
    // What people handed in is no part of a site’s file.
    for (const work of problems.length > 0 ? [] : workOn(today)) await insertHandIn(trivet.db, work, []);
    await trivet.close();
    return problems;
  } finally {
    claim.release();
  }
}

const problems = await load(process.argv.includes('--keep'));
for (const problem of problems) console.error(`  ${problem}`);
process.exit(problems.length > 0 ? 1 : 0);
