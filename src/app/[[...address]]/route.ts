/** Every address of the site that is not Trivet's own. */
import { viewPage } from '@/services';
import { renderAnswer } from '@/site';
import { lookOf } from '../_http/look';
import { asking } from '../_http/request';
import { delivery, respond } from '../_http/response';

export const dynamic = 'force-dynamic';

export async function GET(request: Request): Promise<Response> {
  const { trivet, visitor } = await asking();
  const answer = viewPage(lookOf(trivet, visitor, request), new URL(request.url).pathname);
  const desk = visitor.person?.desk ?? false;
  const sameForEveryone = answer.kind === 'page' && answer.sameForEveryone && !desk;
  return respond(request, await renderAnswer(answer, delivery(desk, false)), false, sameForEveryone);
}
