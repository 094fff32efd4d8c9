import { changeItem, draftedItems, latestRemovals, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** What is being written, and what was taken away lately. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) =>
    json({
      drafted: await draftedItems(trivet, administrator),
      removals: await latestRemovals(trivet, administrator),
    }),
  );

/** Makes, changes, moves or takes away an item. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator, body) => {
    const answer = await changeItem(trivet, administrator, body, theTime());
    if (answer.kind === 'done') return json(answer);
    return answer.kind === 'opens'
      ? problem(409, answer.message, { opens: true })
      : problem(422, answer.message);
  });
