/** The till that stands in for a real one, beside the site: both know a key that nobody else does. */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';

/** Names the till and its key to whatever is started from here; answers false where somebody named another. */
export function nameTill() {
  if (process.env.TRIVET_TILL !== undefined) return false;
  process.env.TRIVET_TILL = `http://localhost:${Number(process.env.PORT ?? 3000) + 100}`;
  process.env.TRIVET_TILL_KEYS = `whsec_${randomBytes(32).toString('base64')}`;
  return true;
}

/** Starts it; it ends with the program that started it, and that with it where it can't go on. */
export function startTill(args) {
  const till = spawn(process.execPath, args, { stdio: 'inherit' });
  process.on('exit', () => till.kill('SIGTERM'));
  till.on('exit', (code) => code && process.exit(code));
}
