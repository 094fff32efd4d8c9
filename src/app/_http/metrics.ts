/**
 * What a server measures of itself, for whoever watches over it, in the OpenMetrics text format. Only the process that opens
 * the front door measures; it is found on `globalThis`, because the framework bundles routes apart.
 */
import { createHash, timingSafeEqual } from 'node:crypto';

/** What a server has measured until now, as a text. */
type Metrics = () => Promise<string>;

const holder = globalThis as { __trivetMetrics?: Metrics };

export const OPEN_METRICS = 'application/openmetrics-text; version=1.0.0; charset=utf-8';

/** Has this process's metrics be asked for. */
export function offerMetrics(metrics: Metrics): void {
  holder.__trivetMetrics = metrics;
}

/** The metrics, for whoever brings the token that the environment names; null for everybody else. */
export async function metricsFor(authorization: string | null, token: string | null): Promise<string | null> {
  const [, brought = ''] = /^bearer +([^\s]+)$/i.exec(authorization?.trim() ?? '') ?? [];
  if (token === null || !holder.__trivetMetrics || !same(brought, token)) return null;
  return holder.__trivetMetrics();
}

const digest = (text: string): Buffer => createHash('sha256').update(text).digest();
const same = (one: string, other: string): boolean => timingSafeEqual(digest(one), digest(other));
