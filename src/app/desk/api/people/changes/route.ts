import { latestChanges } from '@/services';
import { forDesk, json } from '../../../../_http/desk';

/** The latest changes of people and names, newest first. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => json(await latestChanges(trivet, administrator)));
