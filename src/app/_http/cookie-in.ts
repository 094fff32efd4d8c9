import type { SiteRequest } from './site-request';

/** A cookie that came with a request. */
export function cookieIn({ headers }: Pick<SiteRequest, 'headers'>, name: string): string | undefined {
  const cookies = headers.get('cookie');
  if (!cookies?.includes(name)) return undefined;
  for (const pair of cookies.split(';')) {
    const at = pair.indexOf('=');
    if (pair.slice(0, at < 0 ? undefined : at).trim() === name)
      return at < 0 ? '' : pair.slice(at + 1).trim();
  }
  return undefined;
}
