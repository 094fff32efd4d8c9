/** A backup brought back, from the command line: all of it, or nothing. */
import { createReadStream, existsSync, statSync } from 'node:fs';
import { databaseIn, isOnServer, NotRestored, readEnvironment, restore } from '../src/services';
import { claimDataFolder } from './data-folder';
import { progress } from './progress';

function stop(lines: readonly string[]): never {
  for (const line of lines) console.error(`  ${line}`);
  process.exit(1);
}

async function main(): Promise<void> {
  const args = process.argv.slice(2);
  const over = args.includes('--over');
  const [from, ...more] = args.filter((one) => one !== '--over');
  if (from === undefined || more.length > 0)
    stop([
      'Say which backup: npm run restore -- <file>',
      'Into a data folder that holds a site already: npm run restore -- <file> --over',
    ]);
  const env = readEnvironment(process.env);
  if ('problems' in env) stop(env.problems);
  const { dataFolder } = env;
  if (isOnServer(env.database))
    stop([
      'A backup is brought back into a data folder: run this without TRIVET_DATABASE.',
      'npm run site -- move brings it onto the server from there.',
    ]);
  if (!existsSync(from) || !statSync(from).isFile()) stop([`There is no file ${from}.`]);
  const claim = claimDataFolder(dataFolder);
  if ('problem' in claim) stop([claim.problem]);
  process.on('exit', claim.release);
  try {
    const there = existsSync(databaseIn(dataFolder));
    if (there && !over)
      stop([
        `The data folder ${dataFolder} holds something already. Name another one with TRIVET_DATA, or say --over:`,
        'what is there is then kept beside it, as database-before-1.',
      ]);
    const said = progress('Brought back', statSync(from).size);
    const { site, made, items, people } = await restore(createReadStream(from), dataFolder, said);
    console.log(`
  ${site || 'The site'} is as it was on ${made.toLocaleString('en-GB')}: ${items} items, ${people} people.${there ? '\n  What was there before is kept beside it, in the data folder.' : ''}
  npm start serves it.
`);
  } catch (error) {
    if (!(error instanceof NotRestored)) throw error;
    stop([error.message, 'Nothing was changed.']);
  }
}

main().catch((error: Error) =>
  stop([`It could not be brought back: ${error.message}`, 'Nothing was changed.']),
);
