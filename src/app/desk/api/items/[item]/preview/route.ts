import { previewWriting, theTime } from '@/services';
import { renderAnswer } from '@/site';
import { forDesk, json, problem } from '../../../../../_http/desk';
import { delivery } from '../../../../../_http/response';

interface Context {
  readonly params: Promise<{ readonly item: string }>;
}

/** What is being written as it will look, to a stand-in. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const answer = await previewWriting(trivet, administrator, (await params).item, body, theTime());
    if (answer.kind === 'missing') return problem(404, 'There is nothing to be shown.');
    const nothing = { html: null, problems: [], elsewhere: null, withheld: [] };
    if (answer.kind === 'wrong') return json({ ...nothing, problems: answer.problems });
    const rendered = await renderAnswer(answer.answer, delivery(false, true));
    return 'location' in rendered
      ? json({ ...nothing, elsewhere: rendered.location })
      : json({ ...nothing, html: rendered.html, withheld: answer.withheld });
  });
