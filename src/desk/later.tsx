'use client';
/** Parts of the desk that come after the first view: read while nobody waits, or when somebody does. */
import { type ComponentType, type LazyExoticComponent, lazy } from 'react';

const RETRY_MS = 2000;
/** Somebody who works without a pause gets the rest all the same. */
const LONGEST_BUSY_MS = 1000;

type Reads<P> = () => Promise<ComponentType<P>>;

const waiting: Reads<never>[] = [];

/** A part that is read later. While the server can't be reached it is asked for again; what was edited stays meanwhile. */
export function later<P extends object>(read: Reads<P>): LazyExoticComponent<ComponentType<P>> {
  waiting.push(read as Reads<never>);
  const untilRead: Reads<P> = () =>
    read().catch(async () => {
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
      return untilRead();
    });
  return lazy(async () => ({ default: await untilRead() }));
}

/** Reads whatever was not wanted yet, one after the other, whenever nothing else is to be done. */
export async function readTheRest(): Promise<void> {
  for (const read of waiting.splice(0)) {
    await new Promise((resolve) => requestIdleCallback(resolve, { timeout: LONGEST_BUSY_MS }));
    await read().catch(() => {});
  }
}
