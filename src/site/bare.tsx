/** The document of a page that belongs to no site: there is none yet. */
import type { ReactNode } from 'react';
import type { Delivery } from './shell';

interface BareProps {
  readonly delivery: Pick<Delivery, 'stylesheet'>;
  readonly title: string;
  readonly children: ReactNode;
}

export const Bare = ({ delivery, title, children }: BareProps) => (
  <html lang="en">
    <head>
      <meta charSet="utf-8" />
      <meta name="viewport" content="width=device-width, initial-scale=1" />
      <meta name="robots" content="noindex" />
      <title>{`${title} · Trivet`}</title>
      <link rel="icon" href="data:," />
      <link rel="stylesheet" href={delivery.stylesheet} />
    </head>
    <body className="flex min-h-dvh flex-col">
      <header className="night">
        <div className="wrap py-4">
          <p className="site-title">Trivet</p>
        </div>
      </header>
      <main id="main" className="wrap flex-1 py-10 sm:py-14">
        {children}
      </main>
    </body>
  </html>
);
