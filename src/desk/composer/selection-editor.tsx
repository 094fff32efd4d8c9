'use client';
import { useEffect, useState } from 'react';
import { type Condition, parseCondition, printCondition, same, selectionProblem } from '@/core';
import { Pick } from '@/ui';
import { useDesk } from '../context';

interface SelectionEditorProps {
  readonly where: Condition;
  readonly onChange: (where: Condition) => void;
}

/** A selection in its text form, with the categories and tags of the site at hand. */
export function SelectionEditor({ where, onChange }: SelectionEditorProps) {
  const { vocabulary, outline } = useDesk();
  const printed = printCondition(where, vocabulary);
  const [text, setText] = useState(printed);
  const read = parseCondition(text, vocabulary);
  const problem = read.ok
    ? selectionProblem(read.condition)
    : `${read.error.message} (character ${read.error.column})`;
  // What was changed elsewhere (undone, pointed at) shows here, unless it means what is typed.
  useEffect(() => {
    setText((typed) => {
      const parsed = parseCondition(typed, vocabulary);
      return parsed.ok && same(parsed.condition, where) ? typed : printCondition(where, vocabulary);
    });
  }, [where, vocabulary]);
  const type = (next: string) => {
    setText(next);
    const parsed = parseCondition(next, vocabulary);
    if (parsed.ok && selectionProblem(parsed.condition) === null) onChange(parsed.condition);
  };
  const categories = [
    ...new Set([...outline.items.values()].flatMap(({ facts }) => facts?.category ?? [])),
  ].sort();
  return (
    <div className="grid gap-1">
      {categories.length > 0 && (
        <Pick
          className="justify-self-start"
          label="Posts of a category"
          value=""
          options={[
            { value: '', label: 'posts of …' },
            ...categories.map((category) => ({ value: category, label: `posts in ${category}` })),
          ]}
          onPick={(category) => {
            if (category !== '') type(`item kind is "post" and item category is ${JSON.stringify(category)}`);
          }}
        />
      )}
      <textarea
        aria-label="Which items, in the text form"
        aria-invalid={problem !== null || undefined}
        rows={2}
        spellCheck={false}
        value={text}
        onChange={(event) => type(event.target.value)}
        className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1 font-mono text-[0.8rem] aria-invalid:border-alarm"
      />
      {problem !== null && <p className="text-alarm">{problem}</p>}
    </div>
  );
}
