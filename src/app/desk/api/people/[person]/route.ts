import { asId, type PersonId } from '@/core';
import { personReport, savePerson, theTime } from '@/services';
import { changeAnswer, forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly person: string }>;
}

/** Everything known of one person, and what they can reach and why. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) => {
    const report = await personReport(trivet, administrator, (await params).person, theTime());
    return report ? json(report) : problem(404, 'There is no such person any more.');
  });

/** Saves one person; `+` is somebody new. */
export const PUT = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) => {
    const { person } = await params;
    const id = decodeURIComponent(person) === '+' ? null : asId<PersonId>(person);
    const answer = await savePerson(trivet, administrator, id, body, theTime());
    if (answer.kind === 'saved') return json(answer);
    return answer.kind === 'problems'
      ? problem(422, 'The form has mistakes.', { problems: answer.problems })
      : changeAnswer(answer);
  });
