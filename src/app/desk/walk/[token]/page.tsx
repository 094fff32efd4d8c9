import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { safeNext } from '@/core';
import { WalkScreen } from '@/desk';
import { administratorOf, readDesk, walkOf } from '@/services';
import { pageVisitor } from '../../../_http/page-visitor';

export const metadata: Metadata = { title: 'Walk' };

interface Props {
  readonly params: Promise<{ readonly token: string }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

/** The site in a frame, as a stand-in sees it. A walk that is over leads back to the board. */
export default async function Page({ params, searchParams }: Props) {
  const [{ token }, { at }] = await Promise.all([params, searchParams]);
  const { trivet, visitor } = await pageVisitor();
  const administrator = administratorOf(visitor);
  const walk = await walkOf(trivet, administrator, token, new Date());
  if (!administrator || !walk) redirect('/desk');
  return (
    <WalkScreen
      data={await readDesk(trivet, administrator, new Date())}
      token={token}
      standIn={walk.standIn}
      side={walk.side}
      at={safeNext(typeof at === 'string' ? at : null)}
    />
  );
}
