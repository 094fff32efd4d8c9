/**
 * The way back in when nobody can sign in: makes a link in the data folder, whether its server runs or not. Whoever opens it
 * chooses a password and owns the site.
 */
import { existsSync } from 'node:fs';
import { isOnServer, makeOwnerLink, readEnvironment } from '../src/services';

function stop(lines: readonly string[]): never {
  for (const line of lines) console.error(`  ${line}`);
  process.exit(1);
}

const [email, ...more] = process.argv.slice(2);
if (email === undefined || more.length > 0)
  stop([
    'Say whose mail address it is: npm run owner -- <mail address>',
    'Somebody with that address gets a new password and the whole desk; if there is nobody, an account is made.',
  ]);
const env = readEnvironment(process.env);
if ('problems' in env) stop(env.problems);
if (!isOnServer(env.database) && !existsSync(env.database))
  stop([
    `The data folder ${env.dataFolder} holds no site. Begin one with npm start, or name another folder with TRIVET_DATA.`,
  ]);
let made: ReturnType<typeof makeOwnerLink>;
try {
  made = makeOwnerLink(env.dataFolder, email, new Date());
} catch (error) {
  stop([
    `The data folder ${env.dataFolder} can't be written (${(error as NodeJS.ErrnoException).code ?? 'error'}). Run this as the user whom the server runs as.`,
  ]);
}
if ('problem' in made) stop([made.problem]);
console.log(`
  Whoever opens this chooses a password and owns the site. It is good once, for a day, while the server runs:

  ${env.publicUrl.origin}/reset/owner/${made.token}
`);
