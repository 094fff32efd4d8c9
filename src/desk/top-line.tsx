'use client';
/** The desk's own top line: the site, which policy is shown, where the draft stands, and the way to everything else. */
import { CircleQuestionMark, Moon, Search, Sun, Undo2 } from 'lucide-react';
import { counted, difference, permits } from '@/core';
import { Button } from '@/ui';
import { useDesk } from './context';
import { TrivetSign } from './marks';
import { SCREEN_KINDS, screenNamed, startOf } from './screens';
import { addressOfView, titleOfView, viewOf } from './view';

export function TopLine({ onPalette }: { readonly onPalette: () => void }) {
  const { data, draft, setSide, setBench, screen, setScreen } = useDesk();
  const here = screenNamed(screen.kind).under ?? screen.kind;
  const tabs = SCREEN_KINDS.flatMap((kind) => {
    const { tab, need } = screenNamed(kind);
    return tab !== undefined && permits(data.desk, need) ? [{ kind, tab }] : [];
  });
  const changes = difference(draft.live.policy, draft.policy).length;
  return (
    <header className="flex h-12 items-center gap-4 border-iron border-b px-4 max-[1400px]:gap-3">
      <h1 className="sr-only">
        {data.siteTitle}: {titleOfView({ screen })}
      </h1>
      <span className="flex items-center gap-2">
        <TrivetSign />
        <span className="max-w-44 truncate font-head font-semibold text-base max-[1400px]:sr-only">
          {data.siteTitle}
        </span>
      </span>
      <nav aria-label="Screens of the desk" className="flex gap-1">
        {tabs.map(({ kind, tab }) => (
          <a
            key={kind}
            href={addressOfView(viewOf(startOf(kind)))}
            aria-current={kind === here ? 'page' : undefined}
            onClick={(event) => {
              // A new tab is the browser's business.
              if ((['Control', 'Meta', 'Shift'] as const).some((key) => event.getModifierState(key))) return;
              event.preventDefault();
              setScreen(startOf(kind));
            }}
            className="rounded-[3px] px-2 py-1 text-quiet max-[1400px]:px-1.5 hover:text-copper aria-[current]:font-semibold aria-[current]:text-ink aria-[current]:underline aria-[current]:decoration-2 aria-[current]:decoration-copper aria-[current]:underline-offset-[7px]"
          >
            {tab}
          </a>
        ))}
      </nav>
      {screenNamed(screen.kind).draft && <SaveState />}
      <span className="ml-auto flex items-center gap-1.5">
        <Button
          weight="quiet"
          onClick={draft.undo}
          disabled={!draft.canUndo}
          aria-label="Undo"
          title="Undo (Ctrl Z)"
          size="small"
        >
          <Undo2 size={16} aria-hidden="true" />
        </Button>
        <Button weight="quiet" onClick={onPalette} title="Find or do anything (Ctrl K)">
          <Search size={15} aria-hidden="true" /> Find <span className="key max-[1400px]:hidden">Ctrl K</span>
        </Button>
        <HelpButton />
        <ThemeButton />
        <Button
          weight={changes > 0 ? 'main' : 'plain'}
          disabled={changes === 0}
          onClick={() => {
            setSide('difference');
            setBench({ kind: 'put live' });
          }}
        >
          {changes === 0 ? 'Nothing to put live' : `Put ${counted(changes, 'change')} live`}
        </Button>
      </span>
    </header>
  );
}

function SaveState() {
  const { draft } = useDesk();
  const { saving, settled, live } = draft;
  if (saving.kind === 'refused') {
    // The whole of it is said where it is wrong as well.
    const said = `Not saved: ${saving.problems[0]?.message ?? saving.title}`;
    return (
      <span role="alert" title={said} className="line-clamp-2 max-w-80 text-alarm text-xs leading-tight">
        {said}
      </span>
    );
  }
  if (saving.kind === 'stale') return <span className="text-alarm text-xs">Two versions: choose one</span>;
  return (
    <span
      role="status"
      title={`Revision ${live.revision} is live`}
      className="note whitespace-nowrap"
      data-testid="save-state"
    >
      {settled ? 'Draft saved' : 'Saving …'}
    </span>
  );
}

/** To the handbook, at the page of this screen. */
function HelpButton() {
  const { data, screen, setScreen } = useDesk();
  if (!permits(data.desk, screenNamed('help').need) || screen.kind === 'help') return null;
  const page = screenNamed(screen.kind).help;
  return (
    <Button
      weight="quiet"
      size="small"
      aria-label="Help"
      title="Help: the handbook, at this screen’s page"
      onClick={() => setScreen(page === undefined ? startOf('help') : { kind: 'help', page })}
    >
      <CircleQuestionMark size={16} aria-hidden="true" />
    </Button>
  );
}

function ThemeButton() {
  const toggle = () => {
    const root = document.documentElement;
    const dark = root.dataset.theme
      ? root.dataset.theme === 'dark'
      : window.matchMedia('(prefers-color-scheme: dark)').matches;
    const next = dark ? 'light' : 'dark';
    root.dataset.theme = next;
    // biome-ignore lint/suspicious/noDocumentCookie: the cookie store is not in every browser yet
    document.cookie = `trivet_theme=${next}; path=/desk; max-age=31536000; samesite=lax`;
  };
  return (
    <Button weight="quiet" onClick={toggle} aria-label="Light or dark" title="Light or dark" size="small">
      <Sun size={16} aria-hidden="true" className="at-night" />
      <Moon size={16} aria-hidden="true" className="by-day" />
    </Button>
  );
}
