import { handbookPicture } from '@/services';
import { forDesk, problem } from '../../../../_http/desk';

/** A picture of the handbook. */
export const GET = async (
  request: Request,
  { params }: { readonly params: Promise<{ readonly picture: string }> },
): Promise<Response> => {
  const { picture } = await params;
  return forDesk(request, 'look', async (trivet, administrator) => {
    const bytes = await handbookPicture(trivet, administrator, picture);
    if (bytes === null) return problem(404, 'The handbook has no such picture.');
    return new Response(bytes, {
      headers: {
        'Content-Type': 'image/png',
        'Cache-Control': 'private, max-age=3600',
        'X-Content-Type-Options': 'nosniff',
      },
    });
  });
};
