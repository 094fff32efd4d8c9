/** Whether a site can do its work, for whoever watches over it: nothing of what it says is about anybody. */
import { countTriedLetters, ping } from '@/store';
import { environment, type Trivet } from '../running';
import { runningTill, type Till } from '../till';

export interface Readiness {
  /** Whether pages can be had. */
  readonly ready: boolean;
  readonly database: 'answers' | 'does not answer';
  /** Whether letters go out: some that were tried and have to be tried again wait. */
  readonly mail: 'none' | 'goes out' | 'waits';
  readonly till: 'none' | 'answers' | 'does not answer';
}

const PATIENCE_MS = 2000;
/** Whoever asks within this, in milliseconds, gets the same answer: asking often asks nobody else often. */
const KEPT_MS = 5000;

const answers = async (asked: Promise<unknown>): Promise<boolean> => {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<false>((resolve) => {
    timer = setTimeout(() => resolve(false), PATIENCE_MS).unref();
  });
  try {
    return await Promise.race([asked.then(() => true), late]);
  } catch {
    return false;
  } finally {
    clearTimeout(timer);
  }
};

const known = new WeakMap<Trivet, { readonly at: number; readonly answer: Promise<Readiness> }>();

/** Asks the database, the mail that waits and the till, each for two seconds at most. */
export function readiness(trivet: Trivet, now: Date): Promise<Readiness> {
  const before = known.get(trivet);
  if (before && Math.abs(now.getTime() - before.at) < KEPT_MS) return before.answer;
  const { mail } = environment();
  const answer = askAll(trivet, mail !== null, runningTill(), now);
  known.set(trivet, { at: now.getTime(), answer });
  return answer;
}

async function askAll(trivet: Trivet, hasMail: boolean, till: Till | null, now: Date): Promise<Readiness> {
  let tried = 0;
  const [database, tells] = await Promise.all([
    answers(ping(trivet.db)),
    till === null ? null : answers(till.meet(now)),
    hasMail &&
      answers(
        countTriedLetters(trivet.db).then((count) => {
          tried = count;
        }),
      ),
  ]);
  return {
    // A process that can't know what holds answers nobody.
    ready: database && trivet.hasSite && trivet.currency?.isCurrent !== false,
    database: database ? 'answers' : 'does not answer',
    mail: !hasMail ? 'none' : tried > 0 ? 'waits' : 'goes out',
    till: tells === null ? 'none' : tells ? 'answers' : 'does not answer',
  };
}
