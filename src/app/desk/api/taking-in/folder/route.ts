import { sendFolder } from '@/services';
import { json, problem, withStream } from '../../../../_http/desk';

/** Takes a folder in a ZIP archive, to be looked at; its name in the address. */
export const POST = (request: Request): Promise<Response> =>
  withStream(request, 'everything', async (trivet, administrator, body) => {
    const name = new URL(request.url).searchParams.get('name') ?? '';
    const answer = await sendFolder(trivet, administrator, body, name);
    return answer.kind === 'sent' ? json(answer) : problem(422, answer.message);
  });
