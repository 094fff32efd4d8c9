import { exportProgress, theTime } from '@/services';
import { csvFile, forDesk, problem } from '../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string }>;
}

/** The progress of a course's learners as a file. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const day = new URL(request.url).searchParams.get('day');
    const csv = await exportProgress(trivet, administrator, (await params).course, day, theTime());
    if (csv === null) return problem(404, 'There is no such course any more.');
    return csvFile('progress', csv);
  });
