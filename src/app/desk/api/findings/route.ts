import { findingsSetAside, setFindingAside, theTime } from '@/services';
import { forDesk, json, problem } from '../../../_http/desk';

/** Findings that were set aside. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'look', async (trivet, administrator) =>
    json(await findingsSetAside(trivet, administrator)),
  );

/** Sets a finding aside with a reason, or brings it back. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'gates', async (trivet, administrator, body) => {
    const wrong = await setFindingAside(trivet, administrator, body, theTime());
    return wrong === null ? json({}) : problem(422, wrong);
  });
