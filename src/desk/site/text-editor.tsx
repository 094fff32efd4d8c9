'use client';
/** A text with marked regions and own words, as it is written. */
import { useRef } from 'react';
import {
  type Completions,
  completionsAt,
  type ItemId,
  isShared,
  ownCompletionsAt,
  ownWordProblem,
  parseRegions,
  type Vocabulary,
} from '@/core';
import { Button } from '@/ui';
import { CompletingArea } from '../condition';
import { useDesk } from '../context';

interface TextEditorProps {
  /** What the text is in: a page or post, or a shared section, whose regions may ask about what it stands on. */
  readonly page: ItemId;
  readonly label: string;
  readonly text: string;
  readonly rows: number;
  readonly onChange: (text: string) => void;
}

/** Within an own word what it could show; in the line of a region what could stand in its condition. */
function textCompletionsAt(text: string, cursor: number, vocabulary: Vocabulary): Completions | null {
  const own = ownCompletionsAt(text, cursor, vocabulary);
  if (own) return own;
  const start = text.lastIndexOf('\n', cursor - 1) + 1;
  const head = /^:::(?:or\s+)?for\s+/i.exec(text.slice(start, cursor))?.[0];
  if (head === undefined) return null;
  const begin = start + head.length;
  const { from, to, options } = completionsAt(text.slice(begin, cursor), cursor - begin, vocabulary);
  return {
    from: begin + from,
    to: begin + to,
    options: options.map((one) => ({ ...one, insert: `${one.insert} ` })),
  };
}

/** Markdown with marked regions and own words; what is wrong with one is said at once, at its line. */
export function TextEditor({ page, label, text, rows, onChange }: TextEditorProps) {
  const { compiled, outline } = useDesk();
  const area = useRef<HTMLTextAreaElement>(null);
  const { vocabulary } = compiled.live;
  const region = parseRegions(text, vocabulary, isShared(outline.items.get(page))).problem;
  const own = ownWordProblem(text, vocabulary);
  const surround = () => {
    const here = area.current;
    if (!here) return;
    const { selectionStart: from, selectionEnd: to } = here;
    const before = text.slice(0, from).replace(/\n*$/, from === 0 ? '' : '\n\n');
    const chosen = text.slice(from, to).trim() || 'Shown to members.';
    const after = text.slice(to).replace(/^\n*/, '\n\n');
    onChange(`${before}:::for signed in\n${chosen}\n:::otherwise\nShown to everybody else.\n:::${after}`);
  };
  /** Begins an own word where the cursor is, and lets what it could show be chosen. */
  const begin = () => {
    const here = area.current;
    if (!here) return;
    here.focus();
    // As if it were typed, so that it can be taken back like that, and is completed.
    document.execCommand('insertText', false, ':own[');
  };
  return (
    <div className="grid gap-1">
      <CompletingArea
        area={area}
        label={label}
        text={text}
        rows={rows}
        spellCheck
        longest={200_000}
        invalid={region !== null || own !== null}
        completionsAt={(at, cursor) => textCompletionsAt(at, cursor, vocabulary)}
        behind=""
        onType={onChange}
        className="w-full resize-y rounded-[3px] border border-iron bg-paper px-2 py-1.5 font-mono text-[0.82rem] leading-relaxed aria-invalid:border-alarm"
      />
      <p className="flex flex-wrap items-center gap-2">
        <Button weight="quiet" size="small" onClick={surround}>
          Show this part to some
        </Button>
        <Button weight="quiet" size="small" onClick={begin}>
          Show the reader’s own …
        </Button>
        {region ? (
          <span role="status" className="text-alarm">
            Line {region.line}: {region.message} From there on nothing is shown to anybody.
          </span>
        ) : own ? (
          <span role="status" className="text-alarm">
            Line {own.line}: {own.message}
          </span>
        ) : (
          <span className="note">Markdown. A part for some stands between :::for and :::</span>
        )}
      </p>
    </div>
  );
}
