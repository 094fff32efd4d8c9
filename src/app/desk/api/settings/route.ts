import { editSettings, openSettings, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** What the site as a whole is set to. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', (trivet, administrator) => json(openSettings(trivet, administrator)));

/** Keeps the settings, or says by field what is wrong. */
export const PUT = (request: Request): Promise<Response> =>
  forDesk(request, 'everything', async (trivet, administrator, body) => {
    const problems = await editSettings(trivet, administrator, body, theTime());
    return problems === null ? json({}) : problem(422, 'The settings have mistakes.', { problems });
  });
