/**
 * In which words a page is drawn. Drawing is synchronous from a document's beginning to its end, so they are at hand in every
 * part of it as a renderer's context would be; route handlers have a renderer without contexts.
 */
import { english, type Messages } from '@/core';

let drawnIn: Messages = english;

/** What Trivet itself says on the page that is being drawn. */
export const say = (): Messages => drawnIn;

/** Draws in some words. */
export function drawIn<Drawn>(messages: Messages, draw: () => Drawn): Drawn {
  const before = drawnIn;
  drawnIn = messages;
  try {
    return draw();
  } finally {
    drawnIn = before;
  }
}

interface LinkedProps {
  /** With [brackets] around what leads somewhere. */
  readonly text: string;
  /** Where that is, in order. */
  readonly to: readonly string[];
}

/** A sentence with links in it, whose places are the language's to choose. */
export const Linked = ({ text, to }: LinkedProps) =>
  text.split(/\[([^\]]*)\]/).map((part, at) =>
    at % 2 === 0 ? (
      part
    ) : (
      // biome-ignore lint/suspicious/noArrayIndexKey: the parts never move
      <a key={at} href={to[(at - 1) / 2]}>
        {part}
      </a>
    ),
  );
