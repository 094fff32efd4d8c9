import { exportPeople, importPeople, LARGEST_CSV, theTime } from '@/services';
import { changeAnswer, csvFile, forDesk, problem, withBytes } from '../../../../_http/desk';

/** People as a file: `q` and `who` say which, `bom` begins it with a byte order mark. */
export const GET = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator) => {
    const query = new URL(request.url).searchParams;
    const who = { text: query.get('q') ?? '', condition: query.get('who') ?? '' };
    const answer = await exportPeople(trivet, administrator, who, query.has('bom'), theTime());
    if ('problem' in answer) return problem(422, answer.problem);
    return csvFile('people', answer.csv);
  });

/** Reads a file of people, sent as it is; `columns` says what each column holds. With `?dry`, only says what that would do. */
export const POST = (request: Request): Promise<Response> =>
  withBytes(request, 'people', LARGEST_CSV, async (trivet, administrator, csv) => {
    const query = new URL(request.url).searchParams;
    const given = query.get('columns');
    let columns: unknown = null;
    try {
      if (given !== null) columns = JSON.parse(given);
    } catch {
      return problem(400, 'The columns are no list.');
    }
    const input = { csv, columns };
    return changeAnswer(await importPeople(trivet, administrator, input, query.has('dry'), theTime()));
  });
