'use client';
/** A tutor's desk, read by those alone who have one. Drawn in the browser alone, like every desk. */
import { type ComponentProps, Suspense, useSyncExternalStore } from 'react';
import { later } from './later';

const Whole = later(async () => (await import('./learners')).TutorDesk);

export function TutorDesk(props: ComponentProps<typeof Whole>) {
  const inBrowser = useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );
  return (
    <Suspense fallback={<p className="p-6">The learners are on their way …</p>}>
      {inBrowser && <Whole {...props} />}
    </Suspense>
  );
}
