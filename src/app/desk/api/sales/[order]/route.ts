import { orderReport, runningTill, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

interface Context {
  readonly params: Promise<{ readonly order: string }>;
}

/** An order with everything that the till told of it. */
export const GET = (request: Request, { params }: Context): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) => {
    const { order } = await params;
    const report = await orderReport(trivet, runningTill(), administrator, order, theTime());
    return report === null ? problem(404, 'There is no such order.') : json(report);
  });
