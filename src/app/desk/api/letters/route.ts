import { keepLetter, type LetterAnswer, openLetters, sendSampleLetter, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** What each kind of letter says. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', (trivet, administrator) => json(openLetters(trivet, administrator)));

/** Keeps what a letter says: 409 with what it says now where somebody else changed it, 422 with what is wrong by part. */
export const PUT = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    told(await keepLetter(trivet, administrator, body)),
  );

/** Sends a letter, filled in with examples, to whoever writes it. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) =>
    told(await sendSampleLetter(trivet, administrator, body, theTime())),
  );

function told(answer: LetterAnswer): Response {
  switch (answer.kind) {
    case 'kept':
    case 'on its way':
      return json({});
    case 'wrong':
      return problem(422, 'The letter has mistakes.', { problems: answer.problems });
    case 'changed':
      return problem(409, 'Somebody else changed this letter meanwhile.', { theirs: answer.theirs });
    default:
      return answer satisfies never;
  }
}
