'use client';
import { type KeyboardEvent, type RefObject, useEffect, useRef, useState } from 'react';

interface WaitingEnter {
  /** Call as one types. */
  readonly type: (text: string) => void;
  /** For whatever holds the field and the list, which `ref` names. */
  readonly onKeyDownCapture: (event: KeyboardEvent) => void;
  readonly ref: RefObject<HTMLDivElement | null>;
}

/**
 * Enter for lists whose entries come from elsewhere: pressed before they have come, it waits for them and chooses the first
 * one then. Typing on takes it back.
 */
export function useWaitingEnter(search: ((text: string) => Promise<void>) | undefined): WaitingEnter {
  const ref = useRef<HTMLDivElement>(null);
  const latest = useRef(0);
  const pressed = useRef(false);
  // The number of the search that was answered last; the list on the screen is the one for it.
  const [answered, setAnswered] = useState(0);
  useEffect(() => {
    if (!pressed.current || answered !== latest.current) return;
    pressed.current = false;
    // The list shows what matches once it has looked at the entries that have just come.
    const frame = requestAnimationFrame(() =>
      ref.current?.querySelector<HTMLElement>('[cmdk-item]:not([data-action])')?.click(),
    );
    return () => cancelAnimationFrame(frame);
  }, [answered]);
  return {
    ref,
    type: (text) => {
      // What is searched here is there at once.
      if (!search) return;
      const turn = ++latest.current;
      pressed.current = false;
      // Answers may overtake one another.
      search(text).finally(() => setAnswered((before) => Math.max(before, turn)));
    },
    onKeyDownCapture: (event) => {
      if (event.key !== 'Enter' || event.nativeEvent.isComposing || answered === latest.current) return;
      event.preventDefault();
      event.stopPropagation();
      pressed.current = true;
    },
  };
}
