import { exportProgress } from '@/services';
import { forDesk, problem } from '../../../../../_http/desk';
import { PRIVATE } from '../../../../../_http/response';

interface Context {
  readonly params: Promise<{ readonly course: string }>;
}

/** The progress of a course's learners as a file. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const day = new URL(request.url).searchParams.get('day');
    const csv = await exportProgress(trivet, administrator, (await params).course, day, new Date());
    if (csv === null) return problem(404, 'There is no such course any more.');
    return new Response(csv, {
      headers: {
        'Content-Type': 'text/csv; charset=utf-8; header=present',
        'Content-Disposition': 'attachment; filename="progress.csv"',
        'Cache-Control': PRIVATE,
        'X-Content-Type-Options': 'nosniff',
      },
    });
  });
