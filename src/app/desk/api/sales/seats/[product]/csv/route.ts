import { exportSeats } from '@/services';
import { csvFile, forDesk } from '../../../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly product: string }>;
}

/** The same as a table. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    csvFile('seats', await exportSeats(trivet, administrator, (await params).product)),
  );
