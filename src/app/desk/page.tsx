import type { Metadata } from 'next';
import { redirect } from 'next/navigation';
import { Desk, readPlace } from '@/desk';
import { administratorOf, readDesk } from '@/services';
import { asking } from '../_http/request';

export const metadata: Metadata = { title: 'Board' };

interface Props {
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

/** The desk's first screen. */
export default async function Page({ searchParams }: Props) {
  const { trivet, visitor } = await asking();
  const administrator = administratorOf(visitor);
  // The proxy has sent everybody else away; this holds should it ever be bypassed.
  if (!administrator) redirect('/sign-in?next=/desk');
  return (
    <Desk data={await readDesk(trivet, administrator, new Date())} place={readPlace(await searchParams)} />
  );
}
