import { environment } from '@/services';

/** The session cookie's name. */
export const SESSION_COOKIE = 'trivet_session';

/** The session cookie, out of reach of scripts and of other sites' forms. A life of zero seconds takes it away. */
export function sessionCookie(token: string, seconds: number): string {
  const secure = environment().publicUrl.protocol === 'https:' ? '; Secure' : '';
  return `${SESSION_COOKIE}=${token}; Path=/; Max-Age=${seconds}; HttpOnly; SameSite=Lax${secure}`;
}
