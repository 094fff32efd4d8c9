import { previewWriting } from '@/services';
import { renderAnswer } from '@/site';
import { forDesk, json, problem } from '../../../../../_http/desk';
import { delivery } from '../../../../../_http/response';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** What is being written as it will look, to a stand-in. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = previewWriting(trivet, administrator, (await params).item, body, new Date());
    if (answer.kind === 'missing') return problem(404, 'There is nothing to be shown.');
    if (answer.kind === 'wrong') return json({ html: null, problems: answer.problems, elsewhere: null });
    const rendered = await renderAnswer(answer.answer, delivery(false, true));
    return 'location' in rendered
      ? json({ html: null, problems: [], elsewhere: rendered.location })
      : json({ html: rendered.html, problems: [], elsewhere: null });
  });
