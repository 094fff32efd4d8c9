import { LARGEST_FILE, theTime, uploadFile } from '@/services';
import { json, problem, withBytes } from '../../../_http/desk';

/** Takes a file in: its bytes as they are, what it is about in the address. */
export const POST = (request: Request): Promise<Response> =>
  withBytes(request, 'content', LARGEST_FILE, async (trivet, administrator, bytes) => {
    const about = Object.fromEntries(new URL(request.url).searchParams);
    const answer = await uploadFile(trivet, administrator, about, bytes, theTime());
    return answer.kind === 'done' ? json(answer) : problem(422, answer.message);
  });
