import { undoChange } from '@/services';
import { changeAnswer, forDesk } from '../../../../_http/desk';

/** Takes a change of people or names back: the body is its id. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) =>
    changeAnswer(await undoChange(trivet, administrator, body)),
  );
