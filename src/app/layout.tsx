/** The document around the desk's pages. The site's pages are documents of their own. */
import '@fontsource-variable/besley/wght.css';
import '@fontsource-variable/atkinson-hyperlegible-next/wght.css';
import '@/desk/desk.css';
import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';

export const metadata: Metadata = { title: { template: '%s · Trivet', default: 'Trivet' }, icons: 'data:,' };

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const theme = (await cookies()).get('trivet_theme')?.value;
  return (
    <html lang="en" data-theme={theme === 'dark' || theme === 'light' ? theme : undefined}>
      <body>{children}</body>
    </html>
  );
}
