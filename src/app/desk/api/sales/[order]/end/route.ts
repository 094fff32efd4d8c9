import { endOrder, runningTill, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly order: string }>;
}

/** Ends a subscription. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const input = { ...(body as object), order: (await params).order };
    const answer = await endOrder(trivet, runningTill(), administrator, input, theTime());
    return answer.kind === 'wrong' ? problem(422, answer.message) : json(answer);
  });
