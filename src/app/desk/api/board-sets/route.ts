import { boardSets, keepBoardSet } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Sets of stand-ins with names. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => json(await boardSets(trivet, administrator)));

/** Keeps a set under a name; one of the same name is replaced. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const wrong = await keepBoardSet(trivet, administrator, body);
    return wrong === null ? json({}) : problem(422, wrong);
  });
