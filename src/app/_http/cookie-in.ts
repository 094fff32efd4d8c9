import type { SiteRequest } from './site-request';

/** A cookie that came with a request. */
export function cookieIn({ headers }: Pick<SiteRequest, 'headers'>, name: string): string | undefined {
  for (const pair of (headers.get('cookie') ?? '').split(';')) {
    const [key, ...value] = pair.trim().split('=');
    if (key === name) return value.join('=');
  }
  return undefined;
}
