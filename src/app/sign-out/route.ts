import { signOut } from '@/services';
import { asking, fromThisSite } from '../_http/request';
import { seeOther } from '../_http/response';
import { sessionCookie } from '../_http/session-cookie';

export const dynamic = 'force-dynamic';

/** Somebody who comes here by address has not asked for anything yet. */
export const GET = async (): Promise<Response> => seeOther('/');

export async function POST(request: Request): Promise<Response> {
  if (!fromThisSite(request)) return seeOther('/');
  const { trivet, visitor } = await asking();
  await signOut(trivet, visitor);
  return seeOther('/', { 'Set-Cookie': sessionCookie('', 0) });
}
