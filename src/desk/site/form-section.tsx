'use client';
/** A form as it is made: its fields, where the answers go, and what is said then. */
import type { FormField } from '@/services';
import { Button, Input, Pick } from '@/ui';
import type { EditorProps, Of } from './section-props';
import { TextEditor } from './text-editor';

const FIELD_TYPES = [
  { value: 'text', label: 'a line' },
  { value: 'long', label: 'several lines' },
  { value: 'mail', label: 'a mail address' },
  { value: 'choice', label: 'one of …' },
  { value: 'tick', label: 'a tick' },
] as const;

export function FormSection({ page, section, onChange }: EditorProps<Of<'form'>>) {
  const put = (index: number, field: FormField) =>
    onChange({
      ...section,
      fields: section.fields.map((one, at) => (at === index ? (field as typeof one) : one)),
    });
  return (
    <div className="grid gap-2">
      <TextEditor
        page={page}
        label={`Text of ${section.title}`}
        text={section.text}
        onChange={(text) => onChange({ ...section, text })}
        rows={3}
      />
      <ol className="grid gap-1.5" aria-label="Questions">
        {section.fields.map((field, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: questions have no identity but their place
          <li key={index} className="flex flex-wrap items-center gap-2">
            <Input
              label="What is asked"
              value={field.label}
              maxLength={200}
              onChange={(event) => put(index, { ...field, label: event.target.value })}
            />
            <Pick
              label="Answered with"
              value={field.type}
              options={FIELD_TYPES}
              onPick={(type) => put(index, { ...field, type })}
            />
            {field.type === 'choice' && (
              <Input
                label="To choose from, with commas between them"
                placeholder="with commas between them"
                defaultValue={field.choices.join(', ')}
                onChange={(event) =>
                  put(index, {
                    ...field,
                    choices: event.target.value
                      .split(',')
                      .map((one) => one.trim())
                      .filter(Boolean),
                  })
                }
              />
            )}
            <label className="flex items-center gap-1">
              <input
                type="checkbox"
                checked={field.required}
                onChange={(event) => put(index, { ...field, required: event.target.checked })}
              />
              needed
            </label>
            <Button
              weight="quiet"
              size="small"
              aria-label={`Take out ${field.label}`}
              onClick={() => onChange({ ...section, fields: section.fields.filter((_, at) => at !== index) })}
            >
              Take out
            </Button>
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-2">
        <Button
          onClick={() =>
            onChange({
              ...section,
              fields: [...section.fields, { label: '', type: 'text', choices: [], required: false }],
            })
          }
        >
          + a question
        </Button>
        <Input
          label="What stands on the button"
          value={section.button}
          maxLength={100}
          onChange={(event) => onChange({ ...section, button: event.target.value })}
        />
        <Input
          label="The mail address it goes to"
          placeholder="The mail address it goes to"
          value={section.mailTo}
          maxLength={254}
          onChange={(event) => onChange({ ...section, mailTo: event.target.value })}
        />
      </div>
      <Input
        label="What is said when it was sent"
        className="w-full"
        value={section.thanks}
        maxLength={1000}
        onChange={(event) => onChange({ ...section, thanks: event.target.value })}
      />
    </div>
  );
}
