/** Who is looking at a page of the desk, which the framework renders and which has no request of its own. */
import { cookies } from 'next/headers';
import { runningTrivet, type Trivet, theTime, type Visitor, visitorOf } from '@/services';
import { SESSION_COOKIE } from './session-cookie';

export async function pageVisitor(): Promise<{ readonly trivet: Trivet; readonly visitor: Visitor }> {
  const trivet = await runningTrivet();
  const token = (await cookies()).get(SESSION_COOKIE)?.value;
  return { trivet, visitor: await visitorOf(trivet, token, theTime()) };
}
