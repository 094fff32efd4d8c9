import { exportSales, theTime } from '@/services';
import { csvFile, forDesk } from '../../../../_http/desk';

/** Every order that was paid, as a table. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) =>
    csvFile('sales', await exportSales(trivet, administrator, theTime())),
  );
