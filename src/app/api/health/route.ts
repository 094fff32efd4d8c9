/** Whether the server answers at all: for those who watch over it. */
export const dynamic = 'force-dynamic';

export const GET = (): Response => Response.json({ ok: true }, { headers: { 'Cache-Control': 'no-store' } });
