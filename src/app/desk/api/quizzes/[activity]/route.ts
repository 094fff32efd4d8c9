import { exportQuiz, LARGEST_PACKAGE, readQuizPackage } from '@/services';
import { forDesk, json, problem, withBytes } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly activity: string }>;
}

/** A quiz that is on the site, as a QTI 3.0 package. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'content', async (trivet, administrator) => {
    const bytes = exportQuiz(trivet, administrator, (await params).activity);
    if (!bytes) return problem(404, 'There is no such quiz on the site yet. Put it there first.');
    return new Response(new Uint8Array(bytes), {
      headers: {
        'Content-Type': 'application/zip',
        'Content-Disposition': 'attachment; filename="quiz.zip"',
        'Cache-Control': 'private, no-store',
        'X-Content-Type-Options': 'nosniff',
      },
    });
  });

/** The questions of a package, for whoever edits the quiz. Nothing is written. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  withBytes(request, 'content', LARGEST_PACKAGE, async (trivet, administrator, bytes) => {
    const read = await readQuizPackage(trivet, administrator, (await params).activity, bytes);
    return read.kind === 'read' ? json(read) : problem(422, read.message);
  });
