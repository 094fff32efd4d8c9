'use client';
import { type RefObject, useEffect, useState } from 'react';

/** The width of an element in pixels, as it changes; about so wide until it is known. */
export function useWidth(element: RefObject<HTMLElement | null>, about: number): number {
  const [width, setWidth] = useState(about);
  useEffect(() => {
    const there = element.current;
    if (!there) return;
    const observer = new ResizeObserver(() => setWidth(there.clientWidth));
    observer.observe(there);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
