'use client';
/** A text with marked regions, as it is written. */
import { useRef } from 'react';
import { parseRegions } from '@/core';
import { Button } from '@/ui';
import { useDesk } from '../context';

interface TextEditorProps {
  readonly label: string;
  readonly text: string;
  readonly rows: number;
  readonly onChange: (text: string) => void;
}

/** Markdown with marked regions; what is wrong with a region is said at once, at its line. */
export function TextEditor({ label, text, rows, onChange }: TextEditorProps) {
  const { compiled } = useDesk();
  const area = useRef<HTMLTextAreaElement>(null);
  const { problem } = parseRegions(text, compiled.live.vocabulary);
  const surround = () => {
    const here = area.current;
    if (!here) return;
    const { selectionStart: from, selectionEnd: to } = here;
    const before = text.slice(0, from).replace(/\n*$/, from === 0 ? '' : '\n\n');
    const chosen = text.slice(from, to).trim() || 'Shown to members.';
    const after = text.slice(to).replace(/^\n*/, '\n\n');
    onChange(`${before}:::for signed in\n${chosen}\n:::otherwise\nShown to everybody else.\n:::${after}`);
  };
  return (
    <div className="grid gap-1">
      <textarea
        ref={area}
        aria-label={label}
        rows={rows}
        value={text}
        maxLength={200_000}
        aria-invalid={problem !== null || undefined}
        onChange={(event) => onChange(event.target.value)}
        className="w-full resize-y rounded-[3px] border border-iron bg-paper px-2 py-1.5 font-mono text-[0.82rem] leading-relaxed aria-invalid:border-alarm"
      />
      <p className="flex flex-wrap items-center gap-2">
        <Button weight="quiet" size="small" onClick={surround}>
          Show this part to some
        </Button>
        {problem ? (
          <span role="status" className="text-alarm">
            Line {problem.line}: {problem.message} From there on nothing is shown to anybody.
          </span>
        ) : (
          <span className="note">Markdown. A part for some stands between :::for and :::</span>
        )}
      </p>
    </div>
  );
}
