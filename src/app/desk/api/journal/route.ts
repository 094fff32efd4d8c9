import { journalReport, theTime } from '@/services';
import { forDesk, json } from '../../../_http/desk';

/** Where visitors were turned away in the last so many `days`, and what they did next. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const days = Number(new URL(request.url).searchParams.get('days') ?? 30);
    return json(await journalReport(trivet, administrator, days, theTime()));
  });
