'use client';
import { X } from 'lucide-react';
import type { ReactNode } from 'react';

interface PanelProps {
  readonly title: string;
  readonly note?: ReactNode;
  readonly actions?: ReactNode;
  readonly onClose?: () => void;
  /** What closing does, in words. */
  readonly closes?: string;
  readonly children: ReactNode;
  /** What is done with it: it stays where it is, however long the rest gets. */
  readonly foot?: ReactNode;
}

/** One thing on the workbench: a head and a foot that stay, and a body that scrolls. */
export function Panel({
  title,
  note,
  actions,
  onClose,
  closes = 'Back to the gates',
  children,
  foot,
}: PanelProps) {
  return (
    <div className="flex h-full min-h-0 flex-col">
      <header className="border-thin border-b px-5 pt-4 pb-3">
        <div className="flex items-start gap-3">
          <h2 className="min-w-0 flex-1 text-xl leading-tight">{title}</h2>
          {actions}
          {onClose && (
            <button
              type="button"
              aria-label={closes}
              title={closes}
              onClick={onClose}
              className="rounded-[3px] p-1 text-quiet hover:text-copper"
            >
              <X size={18} aria-hidden="true" />
            </button>
          )}
        </div>
        {note && <div className="note mt-1">{note}</div>}
      </header>
      <div className="min-h-0 flex-1 overflow-y-auto px-5 py-4">{children}</div>
      {foot && <footer className="border-thin border-t px-5 py-3">{foot}</footer>}
    </div>
  );
}
