/** What a server tells of its work: metrics by OpenMetrics, and a line of JSON for each request. */
import type { IncomingMessage, ServerResponse } from 'node:http';
import { type DestinationStream, pino } from 'pino';
import { Counter, collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client';
import { clientAddress } from '../src/app/_http/client-address';
import type { Watch } from '../src/app/_http/front-door';
import { offerMetrics } from '../src/app/_http/metrics';
import { type environment, type Trivet, tellTroubleTo } from '../src/services';

type Of = Parameters<Watch>[0];

// In seconds.
const BUCKETS = [0.001, 0.0025, 0.005, 0.01, 0.025, 0.05, 0.1, 0.25, 0.5, 1, 2.5, 10];
/** A line is on its way after so long, in milliseconds. */
const FLUSH_MS = 1000;

/** What watches over the requests of a server; null where nothing is asked for. */
export function watching(
  { log, metricsToken }: Pick<ReturnType<typeof environment>, 'log' | 'metricsToken'>,
  site: () => Trivet | null,
  lines: () => DestinationStream = standardOutput,
): Watch | null {
  const count = metricsToken === null ? null : counting(site);
  const write = log === 'none' ? null : logging(log === 'addresses', lines());
  if (!count && !write) return null;
  return (of, target, incoming, outgoing) => {
    const began = performance.now();
    // A response closes once, however it ends.
    outgoing.once('close', () => {
      const ms = performance.now() - began;
      count?.(of, outgoing, ms);
      write?.(of, target, incoming, outgoing, ms);
    });
  };
}

function counting(site: () => Trivet | null) {
  const registry = new Registry();
  registry.setContentType(Registry.OPENMETRICS_CONTENT_TYPE as never);
  const registers = [registry];
  collectDefaultMetrics({ register: registry });
  const requests = new Counter({
    name: 'trivet_requests',
    help: 'Requests that were answered.',
    labelNames: ['of', 'status'] as const,
    registers,
  });
  const seconds = new Histogram({
    name: 'trivet_request_seconds',
    help: 'How long it took to answer requests.',
    labelNames: ['of'] as const,
    buckets: BUCKETS,
    registers,
  });
  const gauge = (name: string, help: string, read: (trivet: Trivet) => number) =>
    new Gauge({
      name,
      help,
      registers,
      collect() {
        const trivet = site();
        if (trivet?.hasSite) this.set(read(trivet));
      },
    });
  gauge('trivet_people', 'People with an account.', ({ state }) => state.people.size);
  gauge('trivet_items', 'Items of the site.', ({ state }) => state.outline.items.size);
  gauge('trivet_revision', 'The revision of the gates that is live.', ({ state }) => state.live.revision);
  gauge('trivet_sessions', 'Sessions that were seen lately.', ({ sessions }) => sessions.size);
  offerMetrics(() => registry.metrics());
  return (of: Of, { statusCode, writableFinished }: ServerResponse, ms: number) => {
    // Whoever hung up got nothing whole.
    requests.inc({ of, status: writableFinished ? `${Math.floor(statusCode / 100)}xx` : 'hung up' });
    seconds.observe({ of }, ms / 1000);
  };
}

/** The standard output, written to in pieces. */
function standardOutput(): DestinationStream {
  const lines = pino.destination({ fd: 1, sync: false, minLength: 4096 });
  // Where nobody reads them any more, lines are lost and nothing else.
  lines.on('error', () => undefined);
  setInterval(() => lines.flush(), FLUSH_MS).unref();
  process.on('exit', () => lines.flushSync());
  return lines;
}

function logging(addresses: boolean, lines: DestinationStream) {
  const log = pino({ base: null, timestamp: pino.stdTimeFunctions.isoTime }, lines);
  tellTroubleTo((what, error) => log.error(toldOf(error), what));
  return (of: Of, target: string, incoming: IncomingMessage, outgoing: ServerResponse, ms: number) => {
    const { method } = incoming;
    const known = {
      of,
      method,
      status: outgoing.statusCode,
      ms: Math.round(ms * 10) / 10,
      ...(!outgoing.writableFinished && { hungUp: true }),
      ...(addresses && { path: withoutSecrets(target), from: clientAddress(incoming) }),
    };
    if (outgoing.statusCode >= 500) log.error(known);
    else log.info(known);
  };
}

/** What is written of an error: what it is called, what it says and where it was. Whatever else it carries stays here. */
function toldOf(error: unknown): object {
  if (!(error instanceof Error)) return { error: { message: String(error) } };
  const { name, message, stack } = error;
  return { error: { name, message, stack } };
}

/** The path of a request, without its query and without what opens something: tokens are longer than anything that is a name. */
export const withoutSecrets = (target: string): string =>
  (target.split('?', 1)[0] ?? '').replace(/[\w-]{40,}/g, '…').slice(0, 500);
