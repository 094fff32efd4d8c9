import { keepBoard } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Keeps the stand-ins on this administrator's board. */
export const PUT = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator, body) => {
    const wrong = await keepBoard(trivet, administrator, body);
    return wrong === null ? json({}) : problem(422, wrong);
  });
