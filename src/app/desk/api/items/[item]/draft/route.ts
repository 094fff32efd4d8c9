import { dropWriting, saveWriting, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** Keeps what is being written. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator, body) => {
    const answer = await saveWriting(trivet, administrator, (await params).item, body, theTime());
    switch (answer.kind) {
      case 'saved':
        return json(answer);
      case 'stale':
        return problem(409, 'Somebody else wrote here meanwhile.', { draft: answer.draft });
      case 'missing':
        return problem(404, 'There is no such page or post any more. Copy what you need.');
      case 'wrong':
        return problem(422, answer.message);
      default:
        return answer satisfies never;
    }
  });

/** Drops it. */
export const DELETE = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator) => {
    await dropWriting(trivet, administrator, (await params).item);
    return json({ kind: 'dropped' });
  });
