/** Those who change the site: each writes registers of its own, one after the other, and knows what has become of each write. */
import { setTimeout as passed } from 'node:timers/promises';
import { nobody, type Policy, same, signedIn } from '../../src/core';
import { hashToken } from '../../src/services/running';
import { answerOf } from './answer';
import { settingsOf } from './content';
import { Register, type Value } from './oracle';
import type { Processes, Running } from './processes';
import { GROUPS, MEMBERS, memberMail, OWNER, PASSWORD, PRODUCTS } from './site';

/** By the clock that is never set, in milliseconds. */
export const moment = (): number => performance.now();
export const anyOf = <T>(list: readonly T[]): T => list[Math.floor(Math.random() * list.length)] as T;

/** A page with who asks for it, which is open or closed by one register alone. */
export interface Looked {
  readonly register: Register;
  readonly path: string;
  readonly cookie: string;
}

export class Writers {
  readonly looked: Looked[] = [];
  /** How many writes were answered, and of how many that were not it turned out that they were done. */
  readonly counts = { answered: 0, refused: 0, done: 0, undone: 0 };
  #going = true;
  #live = 1;

  constructor(private readonly processes: Processes) {}

  /** Begins all of them; `stop` lets them end what they are about. */
  async begin(): Promise<{ readonly stop: () => Promise<void> }> {
    const owner = await this.#signIn(OWNER);
    const members = await Promise.all(
      Array.from({ length: MEMBERS }, (_, at) => this.#signIn(memberMail(at))),
    );
    const board = new Register('The board', 'closed');
    for (const cookie of members) this.looked.push({ register: board, path: '/board', cookie });
    const loops = [
      this.#again(() => this.#putLive(board, owner)),
      this.#again(() => this.#signInAndOut()),
      this.#purchases(members, owner),
      ...this.#content(members[0] ?? '', owner),
      ...members.map((cookie, at) => this.#joins(cookie, at)),
    ];
    return {
      stop: async () => {
        this.#going = false;
        await Promise.all(loops);
      },
    };
  }

  /** What is in the database that was answered, and is not; none. */
  async lost(): Promise<readonly string[]> {
    const rows = await this.processes.ask('select count(*)::int as count from revisions');
    const count = Number(rows[0]?.count);
    return count === this.#live ? [] : [`${this.#live} revisions were put live, and History has ${count}.`];
  }

  async #again(work: () => Promise<void>, pauseMs = 200): Promise<void> {
    while (this.#going) {
      await work();
      await passed(Math.random() * pauseMs);
    }
  }

  /** Writes a register; what was not answered is looked up once it can’t be done any more, and what was refused is not done. */
  async #write(
    register: Register,
    value: Value,
    send: () => Promise<Response>,
    isThere: () => Promise<boolean>,
  ): Promise<boolean> {
    const from = moment();
    const status = await send().then(
      (response) => response.status,
      () => 0,
    );
    if (status >= 200 && status < 400) {
      this.counts.answered += 1;
      register.wrote(value, from, moment());
      return true;
    }
    if (status >= 400 && status < 500) {
      this.counts.refused += 1;
      return false;
    }
    await this.processes.settle();
    const done = await isThere();
    if (done) register.wrote(value, from, moment());
    this.counts[done ? 'done' : 'undone'] += 1;
    return done;
  }

  #somebody(): Running {
    const ready = this.processes.all.filter(({ busy }) => !busy);
    return anyOf(ready.length > 0 ? ready : this.processes.all);
  }

  async #putLive(board: Register, owner: string): Promise<void> {
    const value = board.value === 'open' ? 'closed' : 'open';
    const asked = await answerOf<{
      readonly draft: { readonly policy: Policy; readonly version: number };
      readonly live: { readonly policy: Policy; readonly revision: number };
    }>(this.#desk(owner, 'GET', '/desk/api/draft'));
    if (!asked) return;
    const { draft, live } = asked;
    const policy = withBoard(live.policy, value);
    const saved = await answerOf<{ readonly version: number }>(
      this.#desk(owner, 'PUT', '/desk/api/draft', { version: draft.version, policy }),
    );
    if (!saved) return;
    const { version } = saved;
    const put = await this.#write(
      board,
      value,
      () => this.#desk(owner, 'POST', '/desk/api/live', { version, revision: live.revision }),
      async () => {
        const rows = await this.processes.ask('select policy from revisions order by number desc limit 1');
        return boardIn(rows[0]?.policy as Policy) === value;
      },
    );
    if (put) this.#live += 1;
  }

  /** A member follows groups and leaves them. */
  async #joins(cookie: string, member: number): Promise<void> {
    const registers = Array.from({ length: GROUPS }, (_, at) => {
      const register = new Register(`Group ${at} of member ${member}`, 'closed');
      this.looked.push({ register, path: `/in/${at}`, cookie });
      return register;
    });
    await this.#again(async () => {
      const at = Math.floor(Math.random() * GROUPS);
      const register = registers[at];
      if (!register) return;
      const value = register.value === 'open' ? 'closed' : 'open';
      await this.#write(
        register,
        value,
        () => this.#form(cookie, `/groups/group-${at}/${value === 'open' ? 'follow' : 'leave'}`, {}),
        async () => {
          const rows = await this.processes.ask(
            `select 1 from person_groups where person = 'member-${member}' and group_id = 'group-${at}'`,
          );
          return rows.length > 0 === (value === 'open');
        },
      );
    });
  }

  /** An author and a teacher change what there is, of which the first member is told. */
  #content(cookie: string, owner: string): readonly Promise<void>[] {
    const desk = (...asked: [string, string, unknown?]) => this.#desk(owner, ...asked);
    return settingsOf(desk, this.processes, 'member-0').map(({ name, path, set, isThere }) => {
      const register = new Register(name, 'closed');
      this.looked.push({ register, path, cookie });
      return this.#again(async () => {
        const value = register.value === 'open' ? 'closed' : 'open';
        const send = await set(value);
        if (send) await this.#write(register, value, send, () => isThere(value));
      }, 500);
    });
  }

  /** Members get one product after the other; what they have stays theirs. */
  async #purchases(members: readonly string[], owner: string): Promise<void> {
    const left = members.flatMap((cookie, member) =>
      Array.from({ length: PRODUCTS }, (_, at) => {
        const register = new Register(`Product ${at} of member ${member}`, 'closed');
        return { register, cookie, member, at };
      }),
    );
    // All of them are asked for from the beginning.
    for (const { register, cookie, at } of left) this.looked.push({ register, path: `/of/${at}`, cookie });
    await this.#again(async () => {
      const one = left.pop();
      if (!one) return;
      const { register, member, at } = one;
      const sale = {
        person: `member-${member}`,
        product: `product-${at}`,
        paid: '',
        currency: 'EUR',
        key: `sale of ${at} to ${member} ${moment()}`,
      };
      const sold = await this.#write(
        register,
        'open',
        () => this.#desk(owner, 'POST', '/desk/api/sales/by-hand', sale),
        async () => {
          const rows = await this.processes.ask(
            `select 1 from orders where person = 'member-${member}' and product = 'product-${at}'`,
          );
          return rows.length > 0;
        },
      );
      if (!sold) left.push(one);
    }, 1000);
  }

  /** Somebody signs in on one process, and out on another. */
  async #signInAndOut(): Promise<void> {
    const cookie = await this.#signIn(memberMail(0)).catch(() => null);
    if (cookie === null) return;
    const register = new Register('A session', 'open');
    this.looked.push({ register, path: '/members', cookie });
    const hash = hashToken(cookie.slice(cookie.indexOf('=') + 1));
    await passed(Math.random() * 1000);
    let out = false;
    while (!out)
      out = await this.#write(
        register,
        'closed',
        () => this.#form(cookie, '/sign-out', {}),
        async () => {
          const rows = await this.processes.ask(`select 1 from sessions where token_hash = '${hash}'`);
          return rows.length === 0;
        },
      );
  }

  async #signIn(email: string): Promise<string> {
    for (;;) {
      const answer = await this.#form('', '/sign-in', { email, password: PASSWORD }).catch(() => null);
      const cookie = answer?.headers.getSetCookie()[0]?.split(';')[0];
      if (answer?.status === 303 && cookie) return cookie;
      if (!this.#going) throw new Error('Nobody signs in any more.');
      await passed(200);
    }
  }

  #form(cookie: string, path: string, fields: Readonly<Record<string, string>>): Promise<Response> {
    const { origin } = this.#somebody();
    return fetch(origin + path, {
      method: 'POST',
      redirect: 'manual',
      headers: { cookie, origin, 'content-type': 'application/x-www-form-urlencoded' },
      body: new URLSearchParams(fields),
    });
  }

  #desk(cookie: string, method: string, path: string, body?: unknown): Promise<Response> {
    const { origin } = this.#somebody();
    return fetch(origin + path, {
      method,
      headers: { cookie, origin, 'content-type': 'application/json' },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
  }
}

const boardIn = ({ gates }: Policy): Value =>
  same(gates.find(({ id }) => id === 'board')?.who, signedIn) ? 'open' : 'closed';

/** The policy with the board open or closed. */
const withBoard = (policy: Policy, value: Value): Policy => ({
  ...policy,
  gates: policy.gates.map((gate) =>
    gate.id === 'board' ? { ...gate, who: value === 'open' ? signedIn : nobody } : gate,
  ),
});
