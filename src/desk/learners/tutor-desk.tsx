'use client';
/** The desk of somebody who sees learners and nothing else. */
import { useState } from 'react';
import { Toaster } from 'sonner';
import type { Day } from '@/core';
import { TrivetSign } from '../marks';
import { addressOfView, viewOf } from '../view';
import { Learners } from './learners';
import type { Looking } from './looking';

interface TutorDeskProps {
  readonly siteTitle: string;
  readonly tutor: string;
  readonly today: Day;
  readonly looking: Looking;
}

export function TutorDesk({ siteTitle, tutor, today, looking: first }: TutorDeskProps) {
  const [looking, setLooking] = useState(first);
  const look = (next: Looking) => {
    setLooking(next);
    window.history.replaceState(null, '', addressOfView(viewOf({ kind: 'learners', ...next })));
  };
  return (
    <div className="flex h-dvh flex-col">
      <header className="flex h-12 items-center gap-4 border-iron border-b px-4">
        <h1 className="flex items-center gap-2">
          <TrivetSign />
          <span className="font-head font-semibold text-base">{siteTitle}</span>
          <span className="text-quiet">Learners</span>
        </h1>
        <span className="ml-auto text-quiet">{tutor}</span>
        <a href="/" className="hover:text-copper">
          To the site
        </a>
      </header>
      <Learners looking={looking} onLook={look} today={today} onPerson={null} />
      <Toaster position="bottom-left" />
    </div>
  );
}
