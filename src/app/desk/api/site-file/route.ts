import { exportSite, LARGEST_SITE_FILE, type PeopleInFile, replaceSite, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';
import { PRIVATE } from '../../../_http/response';

const WHO: Readonly<Record<string, PeopleInFile>> = { '': 'people', 'sign-in': 'people who can sign in' };

/** The site as one file; with its people when `people` is asked for, and able to sign in with `people=sign-in`. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator) => {
    const people = new URL(request.url).searchParams.get('people');
    const who = people === null ? 'nobody' : Object.hasOwn(WHO, people) ? WHO[people] : undefined;
    if (who === undefined) return problem(400, 'People come as `people`, or as `people=sign-in`.');
    const file = await exportSite(trivet, administrator, who);
    return new Response(`${JSON.stringify(file, null, 2)}\n`, {
      headers: {
        'Content-Type': 'application/json; charset=utf-8',
        'Content-Disposition': 'attachment; filename="site.json"',
        'Cache-Control': PRIVATE,
      },
    });
  });

/** A file over the site: a dry run without a `basis`, and all or nothing with that of the dry run. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(
    request,
    'everything',
    async (trivet, administrator, body) => {
      const answer = await replaceSite(trivet, administrator, body, theTime());
      switch (answer.kind) {
        case 'report':
        case 'done':
          return json(answer);
        case 'stale':
          return problem(409, answer.message);
        case 'wrong':
          return problem(422, answer.problems[0] ?? 'This file can’t be taken in.', {
            problems: answer.problems,
          });
        default:
          return answer satisfies never;
      }
    },
    LARGEST_SITE_FILE,
  );
