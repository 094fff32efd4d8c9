import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { Desk } from '@/desk';
import { administratorOf, readDesk } from '@/services';
import { asking } from '../_http/request';

export const metadata: Metadata = { title: 'Board' };

/** The desk's first screen. */
export default async function Page() {
  const { trivet, visitor } = await asking();
  const administrator = administratorOf(visitor);
  // The proxy has sent everybody else away; this holds should it ever be bypassed.
  if (!administrator) redirect('/sign-in?next=/desk');
  return <Desk data={await readDesk(trivet, administrator)} />;
}
