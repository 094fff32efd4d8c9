import { exportPeople, importPeople, LARGEST_CSV } from '@/services';
import { changeAnswer, forDesk, problem } from '../../../../_http/desk';
import { PRIVATE } from '../../../../_http/response';

// A character takes up to four bytes, and JSON may write it as six.
const LARGEST_BODY = LARGEST_CSV * 2;

/** People as a file: `q` and `who` say which, `bom` begins it with a byte order mark. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, (trivet, administrator) => {
    const query = new URL(request.url).searchParams;
    const who = { text: query.get('q') ?? '', condition: query.get('who') ?? '' };
    const answer = exportPeople(trivet, administrator, who, query.has('bom'), new Date());
    if ('problem' in answer) return problem(422, answer.problem);
    return new Response(answer.csv, {
      headers: {
        'Content-Type': 'text/csv; charset=utf-8; header=present',
        'Content-Disposition': 'attachment; filename="people.csv"',
        'Cache-Control': PRIVATE,
        'X-Content-Type-Options': 'nosniff',
      },
    });
  });

/** Reads a file of people; with `?dry`, only says what that would do. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(
    request,
    async (trivet, administrator, body) => {
      const dry = new URL(request.url).searchParams.has('dry');
      return changeAnswer(await importPeople(trivet, administrator, body, dry, new Date()));
    },
    LARGEST_BODY,
  );
