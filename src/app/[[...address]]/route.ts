/** Every address that is not the desk's: the visitor's side of the site. */
import { runningTrivet } from '@/services';
import { siteResponse } from '../_doors';

export const dynamic = 'force-dynamic';

const handle = async (request: Request): Promise<Response> => siteResponse(await runningTrivet(), request);

export { handle as GET, handle as POST };
