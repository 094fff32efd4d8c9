/** The document around every page of the site: head, title band, menu, foot. */
import type { ReactNode } from 'react';
import type { Frame, MenuLink } from '@/services';

/** What the server knows about how the page is being delivered. */
export interface Delivery {
  /** The address of the site's style sheet. */
  readonly stylesheet: string;
  /** Whether this visitor may use the desk, and is on the site itself rather than on a walk. */
  readonly desk: boolean;
  /** On a walk, forms are drawn and do nothing. */
  readonly walk: boolean;
}

interface ShellProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly title: string | null;
  readonly description?: string;
  /** The page's own address, for those that have one. */
  readonly canonical?: string;
  readonly children: ReactNode;
}

export function Shell({ frame, delivery, title, description, canonical, children }: ShellProps) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>{title === null ? frame.siteTitle : `${title} · ${frame.siteTitle}`}</title>
        {description && <meta name="description" content={description} />}
        {canonical && <link rel="canonical" href={canonical} />}
        <link rel="icon" href="data:," />
        <link rel="stylesheet" href={delivery.stylesheet} />
      </head>
      <body className="flex min-h-dvh flex-col">
        <a className="skip" href="#main">
          Skip to the text
        </a>
        <header className="night">
          <div className="wrap flex flex-wrap items-baseline justify-between gap-x-8 gap-y-3 pt-6 pb-4">
            <p className="site-title">{frame.siteTitle}</p>
            {frame.menu.length > 0 && (
              <nav aria-label="Top">
                <ul className="flex flex-wrap gap-x-6 gap-y-1">
                  {frame.menu.map((link) => (
                    <MenuEntry key={link.title} link={link} walk={delivery.walk} />
                  ))}
                </ul>
              </nav>
            )}
          </div>
          <Horizon />
        </header>
        <main id="main" className="wrap w-full flex-1 py-10 sm:py-14">
          {children}
        </main>
        <footer className="wrap w-full pt-6 pb-10">
          <p className="foot">
            {frame.siteTitle}
            {delivery.desk && (
              <>
                {' · '}
                <a href="/desk">Desk</a>
              </>
            )}
          </p>
        </footer>
      </body>
    </html>
  );
}

function MenuEntry({ link, walk }: { readonly link: MenuLink; readonly walk: boolean }) {
  return (
    <li className="menu-entry">
      <MenuAnchor link={link} walk={walk} />
      {link.links.length > 0 && (
        <ul className="menu-below" aria-label={`Below ${link.title}`}>
          {link.links.map((nested) => (
            <MenuEntry key={nested.title} link={nested} walk={walk} />
          ))}
        </ul>
      )}
    </li>
  );
}

function MenuAnchor({ link: { title, to }, walk }: { readonly link: MenuLink; readonly walk: boolean }) {
  switch (to.kind) {
    case 'address':
      return (
        <a className="menu-link" href={to.address} aria-current={to.current ? 'page' : undefined}>
          {title}
        </a>
      );
    case 'outside':
      return (
        <a className="menu-link" href={to.url} rel="noopener">
          {title}
        </a>
      );
    case 'sign out':
      return (
        <form method="post" action={to.address} className="inline">
          <button className="menu-link" type="submit" disabled={walk}>
            {title}
          </button>
        </form>
      );
    default:
      return to satisfies never;
  }
}

/** The line of the hill under the night: only decoration. */
function Horizon() {
  return (
    <svg
      className="-mb-px block h-6 w-full sm:h-9"
      viewBox="0 0 1200 36"
      preserveAspectRatio="none"
      aria-hidden="true"
    >
      <path
        d="M0 36V25C170 30 300 33 470 27C640 21 760 7 930 6C1040 5 1130 14 1200 18V36Z"
        className="hill"
      />
    </svg>
  );
}
