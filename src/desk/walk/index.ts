'use client';
/** The site as a stand-in sees it; a program of its own, which the desk does not wait for. */
import { later } from '../later';

export const WalkScreen = later(async () => (await import('./walk-screen')).WalkScreen);
