'use client';
import { useEffect, useState } from 'react';

/** A moment by the clock of whoever reads; as it is written until that is known. */
export function When({ at }: { readonly at: string }) {
  const [text, setText] = useState(at.slice(0, 16).replace('T', ' '));
  useEffect(
    () => setText(new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })),
    [at],
  );
  return <time dateTime={at}>{text}</time>;
}
