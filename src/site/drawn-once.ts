/** What looks the same to everybody who gets the same value: drawn once in each language, and kept as long as the value is. */
import type { ReactNode } from 'react';
import type { Messages } from '@/core';
import { markupOf } from './markup';
import { say } from './wording';

/** Answers with the markup of a value. */
export function drawnOnce<Value extends object>(draw: (value: Value) => ReactNode): (value: Value) => string {
  const known = new WeakMap<Messages, WeakMap<Value, string>>();
  return (value) => {
    const words = say();
    const drawn = known.get(words) ?? new WeakMap<Value, string>();
    known.set(words, drawn);
    const markup = drawn.get(value) ?? markupOf(draw(value));
    drawn.set(value, markup);
    return markup;
  };
}
