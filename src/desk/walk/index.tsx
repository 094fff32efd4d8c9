'use client';
/** The site as a stand-in sees it; a program of its own, which the desk does not wait for. */
import { type ComponentProps, Suspense } from 'react';
import { later } from '../later';

const Part = later(async () => (await import('./walk-screen')).WalkScreen);

export const WalkScreen = (props: ComponentProps<typeof Part>) => (
  <Suspense>
    <Part {...props} />
  </Suspense>
);
