/** The one running Trivet of this process. Next bundles routes apart, so it is kept on `globalThis`. */
import { setClockAhead } from './clock';
import { type Environment, readEnvironment } from './environment';
import { Trivet } from './trivet';

const holder = globalThis as { __trivet?: Promise<Trivet> };

/** The running Trivet, opened at the first call. */
export function runningTrivet(): Promise<Trivet> {
  holder.__trivet ??= open();
  return holder.__trivet;
}

async function open(): Promise<Trivet> {
  const { dataFolder, database, keptBytes } = environment();
  const trivet = await Trivet.open(database, keptBytes, dataFolder);
  const set = () => {
    if (trivet.hasSite) setClockAhead(trivet.state.settings.clockAhead);
  };
  set();
  // Another process may move it on.
  if (trivet.currency) trivet.currency.caughtUp = set;
  return trivet;
}

/** The environment, known to be right because the server checked it before it started. */
export function environment(): Environment {
  if (known) return known;
  const env = readEnvironment(process.env);
  if ('problems' in env) throw new Error(env.problems.join('\n'));
  known = env;
  return env;
}

let known: Environment | null = null;
