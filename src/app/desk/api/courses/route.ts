import { coursesTaught } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** The courses whose learners one may see. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'learners', (trivet, administrator) => json(coursesTaught(trivet, administrator)));
