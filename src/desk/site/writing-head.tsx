'use client';
/** The head of what is being written: whether it is kept, what sends it to the site, and what somebody else wrote meanwhile. */
import { Button } from '@/ui';
import type { WritingDesk } from './use-writing';
import type { AnyDocument } from './writing-state';

interface HeadProps {
  readonly title: string;
  readonly writing: Omit<WritingDesk<AnyDocument>, 'change'>;
  /** What the other version is, when somebody else was quicker: what it is called and holds. */
  readonly theirs: string | null;
  readonly onSend: () => void;
}

export function WritingHead({ title, writing, theirs, onSend }: HeadProps) {
  return (
    <>
      <header className="flex flex-wrap items-center gap-2">
        <h2 className="mr-auto text-xl">{title || 'Without a title'}</h2>
        <span role="status" data-testid="kept" className="note">
          {
            {
              kept: writing.drafted ? 'Kept, not on the site yet' : 'As it is on the site',
              keeping: 'Keeping …',
              'not kept': 'Not kept yet',
            }[writing.keeping]
          }
        </span>
        {writing.drafted && (
          <Button weight="quiet" onClick={() => void writing.drop()}>
            Drop what I wrote
          </Button>
        )}
        <Button weight="main" disabled={!writing.drafted && writing.keeping === 'kept'} onClick={onSend}>
          Put it on the site
        </Button>
      </header>
      {writing.theirs && (
        <div role="alert" className="mt-3 grid gap-2 border-alarm border-l-3 pl-3">
          <p>
            {writing.theirs.by} wrote here meanwhile. Theirs is called {theirs}; nothing of either is lost
            until you choose.
          </p>
          <p className="flex gap-2">
            <Button onClick={() => writing.settle('mine')}>Keep mine</Button>
            <Button onClick={() => writing.settle('theirs')}>Take theirs</Button>
          </p>
        </div>
      )}
      {writing.problem && !writing.theirs && (
        <p role="alert" className="mt-3 border-alarm border-l-3 pl-3 text-alarm">
          {writing.problem}
        </p>
      )}
    </>
  );
}
