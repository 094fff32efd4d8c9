/** Three processes of Trivet on one PostgreSQL server, which can be stopped, killed and started. */
import { type ChildProcess, spawn } from 'node:child_process';
import { once } from 'node:events';
import { setTimeout as passed } from 'node:timers/promises';
import pg from 'pg';
import type { Postgres } from '../postgres.mjs';

/** One process, under the port that it keeps. */
export interface Running {
  readonly port: number;
  readonly origin: string;
  child: ChildProcess;
  /** While it is down or stands still nothing is begun with it. */
  busy: boolean;
}

export class Processes {
  readonly all: readonly Running[];
  /** The numbers of processes that were killed. */
  readonly #killed: number[] = [];
  #ending = false;

  constructor(
    private readonly postgres: Postgres,
    private readonly env: Readonly<Record<string, string>>,
    ports: readonly number[],
    /** One of them has another clock, unless it is said that they have one. */
    private readonly clocks: 'one clock' | 'another clock' = 'another clock',
  ) {
    this.all = ports.map((port, at) => ({
      port,
      origin: `http://127.0.0.1:${port}`,
      child: this.#spawn(port, at),
      busy: false,
    }));
  }

  /** Settles when every process answers. */
  async ready(): Promise<void> {
    await Promise.all(this.all.map((one) => this.#answers(one)));
  }

  async kill(one: Running): Promise<void> {
    one.busy = true;
    if (one.child.pid !== undefined) this.#killed.push(one.child.pid);
    const ended = once(one.child, 'exit');
    one.child.kill('SIGKILL');
    await ended;
    one.child = this.#spawn(one.port, this.all.indexOf(one));
    await this.#answers(one);
    one.busy = false;
  }

  /** Lets a process stand still, as one does whose machine has no memory left. */
  async hold(one: Running, ms: number): Promise<void> {
    one.busy = true;
    one.child.kill('SIGSTOP');
    await passed(ms);
    one.child.kill('SIGCONT');
    one.busy = false;
  }

  async restartDatabase(signal: 'SIGINT' | 'SIGQUIT'): Promise<void> {
    await this.postgres.stop(signal);
    await this.postgres.start();
  }

  /** Cuts every connection of the processes that there is. */
  async cutConnections(): Promise<void> {
    await this.ask(
      `select pg_terminate_backend(pid) from pg_stat_activity where application_name like 'Trivet %'`,
    );
  }

  /**
   * Waits until nothing goes on any more of what was begun and got no answer: what killed processes had sent is done or undone,
   * and so is the change that held the site.
   */
  async settle(): Promise<void> {
    const dead = this.#killed.map(String);
    for (;;) {
      const rows = await this.ask(
        `select 1 from pg_stat_activity where application_name like 'Trivet %' and split_part(application_name, ' ', 2) = any($1) limit 1`,
        dead,
      );
      if (rows.length === 0) break;
      await passed(50);
    }
    await this.ask('select pg_advisory_lock(7301), pg_advisory_unlock(7301)');
  }

  /** Asks the database itself, and again while it is down. */
  async ask(text: string, values: readonly unknown[] = []): Promise<readonly Record<string, unknown>[]> {
    for (let tries = 0; ; tries += 1) {
      const client = new pg.Client({ connectionString: this.postgres.url('trivet') });
      client.on('error', () => undefined);
      try {
        await client.connect();
        const { rows } = await client.query(text, text.includes('$1') ? [values] : []);
        return rows as Record<string, unknown>[];
      } catch (error) {
        if (tries > 100) throw error;
        await passed(100);
      } finally {
        await client.end().catch(() => undefined);
      }
    }
  }

  async end(): Promise<void> {
    this.#ending = true;
    const running = this.all.filter(({ child }) => child.exitCode === null && child.signalCode === null);
    const ended = running.map(({ child }) => once(child, 'exit'));
    for (const { child } of running) child.kill('SIGKILL');
    await Promise.all(ended);
  }

  #spawn(port: number, at: number): ChildProcess {
    const clock =
      at === 1 && this.clocks === 'another clock' ? ['--import', './scripts/faults/other-clock.mjs'] : [];
    return spawn(process.execPath, [...clock, '.next/serve.mjs'], {
      env: { ...process.env, ...this.env, PORT: String(port) },
      stdio: ['ignore', 'ignore', process.env.TRIVET_FAULTS_SAY ? 'inherit' : 'ignore'],
    });
  }

  async #answers({ origin, child }: Running): Promise<void> {
    for (let tries = 0; tries < 600; tries += 1) {
      const { status } = await fetch(`${origin}/members`).catch(() => ({ status: 0 }));
      if (status === 404) return;
      if (this.#ending || child.exitCode !== null) throw new Error('A process ended by itself.');
      await passed(50);
    }
    throw new Error('A process does not answer.');
  }
}
