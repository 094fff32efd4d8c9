import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { permits, siteTitleOf } from '@/core';
import { Desk, panelWidthIn, readView, TutorDesk, titleOfView } from '@/desk';
import { administratorOf, plainRequest, readDesk, theTime } from '@/services';
import { pageVisitor } from '../../_http/page-visitor';

interface Props {
  readonly params: Promise<{ readonly screen?: readonly string[] }>;
  readonly searchParams: Promise<Readonly<Record<string, string | string[] | undefined>>>;
}

const viewAt = async ({ params, searchParams }: Props) =>
  readView((await params).screen ?? [], await searchParams);

export async function generateMetadata(props: Props): Promise<Metadata> {
  const view = await viewAt(props);
  return { title: view ? titleOfView(view) : 'Desk' };
}

/** Every screen of the desk: one program with one draft, whichever of them one begins at. */
export default async function Page(props: Props) {
  const view = await viewAt(props);
  if (!view) notFound();
  const { trivet, visitor } = await pageVisitor();
  const administrator = administratorOf(visitor);
  // The proxy has sent everybody else away; this holds should it ever be bypassed.
  if (!administrator) redirect('/sign-in?next=/desk');
  if (!permits(administrator.desk, 'look')) {
    if (view.screen.kind !== 'learners') redirect('/desk/learners');
    const { outline } = trivet.state;
    return (
      <TutorDesk
        siteTitle={siteTitleOf(outline)}
        tutor={administrator.name}
        today={plainRequest(trivet.state, theTime()).today}
        looking={view.screen}
      />
    );
  }
  const panelWidth = panelWidthIn((await cookies()).get('trivet_panel')?.value);
  const data = await readDesk(trivet, administrator, theTime());
  return <Desk data={data} view={view} panelWidth={panelWidth} />;
}
