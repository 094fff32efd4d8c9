'use client';
/** A profile field's details: what it holds, and who may see or fill it in. A change of type is shown before it is made. */
import { useState } from 'react';
import { FIELD_TYPES, type Field, type FieldType, same } from '@/core';
import type { NamesEdit } from '@/services';
import { Button, Pick } from '@/ui';
import { useDesk } from '../context';
import { Panel } from '../panel';
import { Consequences } from './consequences';

export function FieldPanel({ id, onDone }: { readonly id: string; readonly onDone: () => void }) {
  const { data } = useDesk();
  const field = data.names.fields.find((one) => one.id === id);
  return field ? <FieldForm field={field} onDone={onDone} /> : null;
}

function FieldForm({ field, onDone }: { readonly field: Field; readonly onDone: () => void }) {
  const [form, setForm] = useState(field);
  const [choices, setChoices] = useState(field.choices.join('\n'));
  const [looking, setLooking] = useState<NamesEdit | null>(null);
  const listed = choices
    .split('\n')
    .map((one) => one.trim())
    .filter((one) => one !== '');
  const next = { ...form, choices: form.type === 'choice' ? listed : [] };
  if (looking) {
    return (
      <Consequences
        edit={looking}
        title={`Before ${field.name} changes`}
        does={`Change ${field.name}`}
        onDone={onDone}
      />
    );
  }
  return (
    <Panel title={field.name} note="What this field holds." onClose={onDone} closes="Leave it as it is">
      <div className="grid gap-4">
        <div className="grid justify-items-start gap-1">
          <span className="text-quiet">Type</span>
          <Pick<FieldType>
            label="Type"
            value={form.type}
            options={FIELD_TYPES.map((type) => ({ value: type, label: type }))}
            onPick={(type) => setForm({ ...form, type })}
          />
        </div>
        {form.type === 'choice' && (
          <label className="grid gap-1">
            <span className="text-quiet">What can be chosen, one a line</span>
            <textarea
              rows={5}
              value={choices}
              onChange={(event) => setChoices(event.target.value)}
              className="rounded-[3px] border border-iron bg-raised px-2 py-1.5"
            />
          </label>
        )}
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={form.private}
            onChange={(event) => setForm({ ...form, private: event.target.checked })}
          />
          Private: never named in a reason that visitors read
        </label>
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            checked={form.editable}
            onChange={(event) => setForm({ ...form, editable: event.target.checked })}
            className="mt-1"
          />
          <span>
            Members fill it in themselves
            <span className="note block">Gates that ask for it are remarked on: anybody can make it up.</span>
          </span>
        </label>
        <div>
          <Button
            weight="main"
            disabled={same(next, field)}
            onClick={() => {
              const { type, private: hidden, editable } = next;
              setLooking({
                kind: 'field',
                id: field.id,
                type,
                choices: [...next.choices],
                private: hidden,
                editable,
              });
            }}
          >
            See what that does
          </Button>
        </div>
      </div>
    </Panel>
  );
}
