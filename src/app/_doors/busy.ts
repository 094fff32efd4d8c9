import { PRIVATE } from '../_http/response';

/** While too many ask for what takes the machine long. */
export const busy = (): Response =>
  new Response('Too many people are doing this just now. Wait a few seconds and try again.', {
    status: 503,
    headers: { 'Retry-After': '5', 'Cache-Control': PRIVATE, 'Content-Type': 'text/plain; charset=utf-8' },
  });
