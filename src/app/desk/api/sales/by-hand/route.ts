import { byHandPreview, sellByHand, theTime } from '@/services';
import { forDesk, json, problem } from '../../../../_http/desk';

/** Sells or gives a product where no till takes the money; with `?preview` says what that would do. */
export const POST = (request: Request): Promise<Response> =>
  forDesk(request, 'people', async (trivet, administrator, body) => {
    if (new URL(request.url).searchParams.has('preview')) {
      const preview = await byHandPreview(trivet, administrator, body, theTime());
      return preview === null ? problem(422, 'Choose a person and a product.') : json(preview);
    }
    const answer = await sellByHand(trivet, administrator, body, theTime());
    return answer.kind === 'wrong' ? problem(422, answer.message) : json(answer);
  });
