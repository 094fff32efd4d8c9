import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { safeNext } from '@/core';
import { WalkScreen } from '@/desk';
import { administratorOf, readDesk, theTime, walkOf } from '@/services';
import { pageVisitor } from '../../../_http/page-visitor';

export const metadata: Metadata = { title: 'Walk' };

interface Props {
  readonly params: Promise<{ readonly token: string }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

/** The site in a frame as a stand-in sees it, or two side by side. A walk that is over leads back to the board. */
export default async function Page({ params, searchParams }: Props) {
  const [{ token }, { at, beside }] = await Promise.all([params, searchParams]);
  const { trivet, visitor } = await pageVisitor();
  const administrator = administratorOf(visitor);
  const now = theTime();
  const tokens = typeof beside === 'string' ? [token, beside] : [token];
  const walks = await Promise.all(tokens.map((one) => walkOf(trivet, administrator, one, now)));
  if (!administrator || !walks[0]) redirect('/desk');
  return (
    <WalkScreen
      key={tokens.join(' ')}
      data={await readDesk(trivet, administrator, now)}
      walks={walks.flatMap((walk) =>
        walk ? [{ token: walk.token, standIn: walk.standIn, side: walk.side, scene: walk.scene }] : [],
      )}
      at={safeNext(typeof at === 'string' ? at : null)}
    />
  );
}
