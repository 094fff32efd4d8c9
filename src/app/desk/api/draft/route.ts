import { saveDraft } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** The draft and what is live, as they are now. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', ({ state: { draft, live } }) =>
    json({
      draft: { policy: draft.policy, version: draft.version, by: draft.by },
      live: { policy: live.policy, revision: live.revision },
    }),
  );

/** Saves the draft: 409 with the newer one when it is based on an old version, 422 with problems when it is wrong. */
export const PUT = (request: Request): Promise<Response> =>
  forDesk(request, 'gates', async (trivet, administrator, body) => {
    const answer = await saveDraft(trivet, administrator, body);
    switch (answer.kind) {
      case 'saved':
        return json({ version: answer.version });
      case 'stale':
        return problem(409, 'The draft was changed meanwhile.', { theirs: answer.theirs });
      case 'wrong':
        return problem(422, 'The draft can’t be saved like this.', { problems: answer.problems });
      default:
        return answer satisfies never;
    }
  });
