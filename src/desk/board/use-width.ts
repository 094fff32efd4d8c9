'use client';
import { type RefObject, useEffect, useState } from 'react';

/** The width of an element in pixels, as it changes; 0 until it is known. */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const there = element.current;
    if (!there) return;
    const observer = new ResizeObserver(() => setWidth(there.clientWidth));
    observer.observe(there);
    return () => observer.disconnect();
  }, [element]);
  return width;
}
