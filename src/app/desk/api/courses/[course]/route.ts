import { courseProgress, enrolLearners, theTime } from '@/services';
import { changeAnswer, forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly course: string }>;
}

/** How far the learners of a course are, as it is or as it would be on a `day`. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator) => {
    const day = new URL(request.url).searchParams.get('day');
    const progress = await courseProgress(trivet, administrator, (await params).course, day, theTime());
    return progress ? json(progress) : problem(404, 'There is no such course any more.');
  });

/** Enrols the people whose mail addresses stand in a text. With `?dry`, only says what that would do. */
export const POST = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'learners', async (trivet, administrator, body) => {
    const dry = new URL(request.url).searchParams.has('dry');
    const input = { ...(body as object), course: (await params).course };
    return changeAnswer(await enrolLearners(trivet, administrator, input, dry, theTime()));
  });
