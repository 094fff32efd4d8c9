/** The document around every page of the site: head, title band, menus, foot. */
import type { ReactNode } from 'react';
import { directionOf, type Spot } from '@/core';
import type { Frame, MenuLink, SectionView, ShownMenu } from '@/services';
import { drawnOnce } from './drawn-once';
import { Horizon } from './horizon';
import { LockSign } from './lock-sign';
import { markupOf } from './markup';
import { Prose, Sections } from './sections';
import { say } from './wording';

/** What the server knows about how the page is being delivered. */
export interface Delivery {
  /** The address of the site's style sheet. */
  readonly stylesheet: string;
  /** The address of the script that keeps an attempt at a quiz as it is filled in. */
  readonly attemptScript: string;
  /** The address of the script that tells what of a video was played, and its digest (Subresource Integrity). */
  readonly watchScript: string;
  readonly watchDigest: string;
  /** The site's own public address, without a path. */
  readonly origin: string;
  /** Whether this visitor may use the desk, and is on the site itself rather than on a walk. */
  readonly desk: boolean;
  /** On a walk nothing is sent: forms say what they would do. */
  readonly walk: boolean;
}

interface ShellProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly title: string | null;
  readonly description?: string;
  /** More for the head: what is told to other sites and to search engines. */
  readonly head?: ReactNode;
  /** Whether the page itself says where its text begins and ends, for what stands before and after it. */
  readonly placed?: boolean;
  /** Markup that comes after everything else of the page. */
  readonly below?: string;
  readonly children: ReactNode;
}

export function Shell({
  frame,
  delivery,
  title,
  description,
  head,
  placed,
  below = '',
  children,
}: ShellProps) {
  const { before, after } = aroundIn(frame, delivery);
  return (
    <html lang={frame.language} dir={directionOf(frame.language) === 'rtl' ? 'rtl' : undefined}>
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>{title === null ? frame.siteTitle : `${title} · ${frame.siteTitle}`}</title>
        {description && <meta name="description" content={description} />}
        {head}
        {!delivery.walk && (
          <>
            <link rel="alternate" type="application/rss+xml" title={frame.siteTitle} href="/feed.xml" />
            <link rel="alternate" type="application/feed+json" title={frame.siteTitle} href="/feed.json" />
          </>
        )}
        <link rel="icon" href="data:," />
        <link rel="stylesheet" href={delivery.stylesheet} />
        {frame.colours && <link rel="stylesheet" href={frame.colours} />}
      </head>
      <body
        className="flex min-h-dvh flex-col"
        // biome-ignore lint/security/noDangerouslySetInnerHtml: rendered here
        dangerouslySetInnerHTML={{
          __html: before + markupOf(placed ? children : around(frame, children)) + below + after,
        }}
      />
    </html>
  );
}

const around = (frame: Frame, children: ReactNode) => (
  <>
    <Near frame={frame} spot="before" />
    {children}
    <Near frame={frame} spot="after" />
  </>
);

const near = drawnOnce((sections: Frame['shared'][Spot]) => <Sections sections={sections} />);

/** What stands right before or after a text. */
export function Near({ frame, spot }: { readonly frame: Frame; readonly spot: 'before' | 'after' }) {
  const sections = frame.shared[spot];
  if (sections.length === 0) return null;
  return (
    <section
      aria-label={say().frame[spot]}
      className="shared shared-near"
      // biome-ignore lint/security/noDangerouslySetInnerHtml: rendered here
      dangerouslySetInnerHTML={{ __html: near(sections) }}
    />
  );
}

interface Around {
  readonly before: string;
  readonly after: string;
}

// Many pages have the same menus around them, and those are the most of what there is to render.
const known = { everyone: new WeakMap<Frame, Around>(), desk: new WeakMap<Frame, Around>() };

function aroundIn(frame: Frame, { desk }: Delivery): Around {
  const arounds = known[desk ? 'desk' : 'everyone'];
  const found = arounds.get(frame);
  if (found) return found;
  const whole = markupOf(<Body frame={frame} desk={desk} />);
  // The one place where this can stand: in a title it is written otherwise, and texts bring no such element.
  const end = whole.indexOf('</main>');
  const made = { before: whole.slice(0, end), after: whole.slice(end) };
  arounds.set(frame, made);
  return made;
}

function Body({ frame, desk }: { readonly frame: Frame; readonly desk: boolean }) {
  const { shared } = frame;
  const { top, side, foot } = frame.menus;
  const words = say().frame;
  return (
    <>
      <a className="skip" href="#main">
        {words.skip}
      </a>
      <Shared sections={shared.top} label={words.announcements} className="shared-top" inner="wrap" />
      <header className="night">
        <div className="wrap flex flex-wrap items-baseline justify-between gap-x-8 gap-y-3 pt-4 pb-2 sm:pt-6 sm:pb-4">
          <p className="site-title">
            <a href={frame.home}>
              {frame.picture && <img className="site-picture" src={frame.picture} alt="" />}
              {frame.siteTitle}
            </a>
          </p>
          {/* On a narrow screen the menus fold into a popover, which needs no scripts; elsewhere they stand here. */}
          <button type="button" className="menu-button" popoverTarget="menu">
            {words.menu}
          </button>
          <div id="menu" popover="auto" className="menu-fold">
            {top.map((menu) => (
              <Menu key={menu.id} menu={menu} label={menu.title} className="menu-top" />
            ))}
            <a className="menu-link" href={frame.search}>
              {words.search}
            </a>
          </div>
        </div>
        <Horizon name={frame.siteTitle} />
      </header>
      <div className="wrap columns flex-1">
        {side.length > 0 && (
          <div className="side">
            {side.map((menu) => (
              <Menu key={menu.id} menu={menu} label={menu.title} className="menu-side" titled />
            ))}
          </div>
        )}
        <main id="main" className="min-w-0 py-10 sm:py-14" />
        {/* Behind the text, so that it is under it on a narrow screen. */}
        <Shared sections={shared.beside} label={words.beside} className="shared-beside" />
      </div>
      <footer className="wrap w-full pt-6 pb-10">
        <Shared sections={shared.foot} label={words.foot} className="shared-foot" />
        {frame.foot !== '' && (
          <div className="foot-words">
            <Prose html={frame.foot} />
          </div>
        )}
        <div className="foot flex flex-wrap items-baseline justify-between gap-x-8 gap-y-2">
          <p>
            {frame.siteTitle}
            {desk && (
              <>
                {' · '}
                <a href="/desk">{words.desk}</a>
              </>
            )}
          </p>
          {foot.map((menu) => (
            <Menu key={menu.id} menu={menu} label={menu.title} className="menu-foot" />
          ))}
        </div>
      </footer>
    </>
  );
}

interface SharedProps {
  readonly sections: readonly SectionView[];
  readonly label: string;
  readonly className: string;
  readonly inner?: string;
}

/** What stands at a spot of many pages; nothing where nothing does. */
const Shared = ({ sections, label, className, inner }: SharedProps) =>
  sections.length === 0 ? null : (
    <section aria-label={label} className={`shared ${className}`}>
      <div className={inner}>
        <Sections sections={sections} />
      </div>
    </section>
  );

interface MenuProps {
  readonly menu: ShownMenu;
  readonly label: string;
  readonly className: string;
  /** Whether its title stands above it for all to see. */
  readonly titled?: boolean;
}

function Menu({ menu, label, className, titled = false }: MenuProps) {
  return (
    <nav aria-label={label} className={className}>
      {titled && <p className="menu-title">{label}</p>}
      <ul>
        {menu.links.map((link) => (
          <MenuEntry key={link.id} link={link} />
        ))}
      </ul>
    </nav>
  );
}

function MenuEntry({ link }: { readonly link: MenuLink }) {
  return (
    <li className="menu-entry">
      <MenuAnchor link={link} />
      {link.links.length > 0 && (
        <ul className="menu-below" aria-label={say().frame.below(link.title)}>
          {link.links.map((nested) => (
            <MenuEntry key={nested.id} link={nested} />
          ))}
        </ul>
      )}
    </li>
  );
}

function MenuAnchor({ link: { title, to } }: { readonly link: MenuLink }) {
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
          <button className="menu-link" type="submit">
            {title}
          </button>
        </form>
      );
    case 'locked':
      return (
        <span className="menu-link menu-locked">
          <LockSign />
          {title}
          <span className="sr-only">
            , {say().frame.locked}
            {to.reason === null ? '' : `. ${to.reason}`}
          </span>
        </span>
      );
    default:
      return to satisfies never;
  }
}
