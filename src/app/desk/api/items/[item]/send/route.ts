import { sendWriting } from '@/services';
import { forDesk, json, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** Puts what is written on the site. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator, body) => {
    const answer = await sendWriting(trivet, administrator, (await params).item, body);
    switch (answer.kind) {
      case 'sent':
        return json(answer);
      case 'wrong':
        return problem(422, 'It can’t go to the site like this.', { problems: answer.problems });
      case 'stale':
        return problem(409, 'Somebody else wrote here meanwhile.', { draft: answer.draft });
      case 'missing':
        return problem(404, 'There is nothing to put on the site any more.');
      default:
        return answer satisfies never;
    }
  });
