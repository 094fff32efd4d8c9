/** The way to the mail server: SMTP, bounded in time, a few letters at once. */
import { createTransport } from 'nodemailer';
import type { Message } from './letter';

export type SendAnswer =
  | { readonly kind: 'sent' }
  /** It may go through later: the server is away, slow or busy, or asks for patience (RFC 5321 §4.5.4.1, greylisting). */
  | { readonly kind: 'later'; readonly problem: string }
  /** The server won't take this letter, now or ever. */
  | { readonly kind: 'refused'; readonly problem: string };

export interface Mailer {
  /** Hands a letter to the server. Never throws. */
  readonly send: (message: Message) => Promise<SendAnswer>;
  readonly close: () => void;
}

/** How long the server may take for one step, in milliseconds. */
interface Patience {
  readonly connect: number;
  readonly answer: number;
}

const PATIENCE: Patience = { connect: 10_000, answer: 30_000 };

/** At most so many connections, and so many letters over one. */
const CONNECTIONS = 2;
const MESSAGES = 50;

/** A mail server by its address: `smtp(s)://user:password@host:port`. */
export function mailerAt(server: string, { connect, answer }: Patience = PATIENCE): Mailer {
  const transport = createTransport({
    url: server,
    pool: true,
    maxConnections: CONNECTIONS,
    maxMessages: MESSAGES,
    // Over a connection that had gone stale, once more at once; whatever else is wrong has its time in the outbox.
    maxRequeues: 1,
    connectionTimeout: connect,
    dnsTimeout: connect,
    greetingTimeout: connect,
    socketTimeout: answer,
    // A letter is made of what is in it, and of nothing that lies elsewhere.
    disableFileAccess: true,
    disableUrlAccess: true,
  });
  return {
    send: async (message) => {
      try {
        await transport.sendMail(message);
        return { kind: 'sent' };
      } catch (error) {
        return refusalOf(error);
      }
    },
    close: () => transport.close(),
  };
}

/** What a letter's own addresses and text were refused with; that a server can't be reached or signed in to is no fault of it. */
const OF_THE_LETTER = new Set(['EENVELOPE', 'EMESSAGE']);

function refusalOf(error: unknown): SendAnswer {
  const { code, responseCode, response, message } = error as {
    readonly code?: string;
    readonly responseCode?: number;
    readonly response?: string;
    readonly message?: string;
  };
  const problem = (response ?? message ?? 'It could not be sent.').replace(/\s+/g, ' ').slice(0, 500);
  const isForGood = OF_THE_LETTER.has(code ?? '') && (responseCode ?? 550) >= 500;
  return { kind: isForGood ? 'refused' : 'later', problem };
}
