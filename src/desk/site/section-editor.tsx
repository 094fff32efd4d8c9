'use client';
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import { type ItemId, isAddressed, type LinkTarget, parseRegions, pathOf } from '@/core';
import type { FormField, SectionRead } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { upload } from './upload';

interface EditorProps<T extends SectionRead = SectionRead> {
  readonly page: ItemId;
  readonly section: T;
  readonly onChange: (section: SectionRead) => void;
}

type Of<Type extends SectionRead['type']> = Extract<SectionRead, { type: Type }>;

/** What a section holds, by its type. */
export function SectionEditor({ page, section, onChange }: EditorProps) {
  switch (section.type) {
    case 'text':
      return (
        <TextEditor
          label={`Text of ${section.title}`}
          text={section.text}
          onChange={(text) => onChange({ ...section, text })}
          rows={10}
        />
      );
    case 'picture':
    case 'video':
      return <FileSection page={page} section={section} onChange={onChange} />;
    case 'form':
      return <FormSection page={page} section={section} onChange={onChange} />;
    case 'call':
      return (
        <>
          <TextEditor
            label={`Text of ${section.title}`}
            text={section.text}
            onChange={(text) => onChange({ ...section, text })}
            rows={3}
          />
          <div className="flex flex-wrap gap-2">
            <Input
              label="What stands on the button"
              value={section.label}
              maxLength={100}
              onChange={(event) => onChange({ ...section, label: event.target.value })}
            />
            <TargetPick
              label="Where the button leads"
              target={section.to as LinkTarget}
              onChange={(to) => onChange({ ...section, to: to as typeof section.to })}
            />
          </div>
        </>
      );
    case 'posts':
      return <PostsSection page={page} section={section} onChange={onChange} />;
    case 'files':
      return (
        <div className="flex items-center gap-2">
          <span className="text-quiet">Those of the category</span>
          <Input
            label="Category of the files"
            value={section.category ?? ''}
            placeholder="all"
            maxLength={200}
            onChange={(event) => onChange({ ...section, category: event.target.value || null })}
          />
          <span className="note">Each visitor gets the ones that are open to them.</span>
        </div>
      );
    case 'follow':
      return <FollowSection page={page} section={section} onChange={onChange} />;
    case 'account':
      return (
        <p className="note">
          What the member who looks is known by, and the fields they fill in. Guests get nothing here.
        </p>
      );
    default:
      return section satisfies never;
  }
}

interface TextEditorProps {
  readonly label: string;
  readonly text: string;
  readonly rows: number;
  readonly onChange: (text: string) => void;
}

/** Markdown with marked regions; what is wrong with a region is said at once, at its line. */
function TextEditor({ label, text, rows, onChange }: TextEditorProps) {
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

function FileSection({ page, section, onChange }: EditorProps<Of<'picture'> | Of<'video'>>) {
  const { outline, reloadSite } = useDesk();
  const input = useRef<HTMLInputElement>(null);
  const [busy, setBusy] = useState(false);
  const kind = section.type === 'picture' ? 'image/' : 'video/';
  const files = [...outline.items.values()].filter(
    (one) => one.kind === 'file' && one.mediaType.startsWith(kind),
  );
  const take = async (chosen: File | undefined) => {
    if (!chosen) return;
    setBusy(true);
    // A picture of a section is in the section, and closed when that is; a new section is not on the site yet.
    const parent = outline.items.has(section.id as ItemId) ? (section.id as ItemId) : page;
    const answer = await upload(chosen, parent);
    setBusy(false);
    if (!answer.ok) {
      toast.error(answer.title);
      return;
    }
    await reloadSite();
    onChange({ ...section, file: answer.value.item });
  };
  return (
    <div className="grid gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Pick
          label={`Which ${section.type}`}
          value={section.file ?? ''}
          options={[
            { value: '', label: 'none yet' },
            ...files.map((one) => ({ value: one.id as string, label: one.title })),
          ]}
          onPick={(file) => onChange({ ...section, file: file || null })}
        />
        <Button disabled={busy} onClick={() => input.current?.click()}>
          {busy ? 'Taking it in …' : 'Take one in'}
        </Button>
        <input
          ref={input}
          type="file"
          accept={`${kind}*`}
          aria-label={`A ${section.type} from this computer`}
          className="hidden"
          onChange={(event) => {
            void take(event.target.files?.[0]);
            event.target.value = '';
          }}
        />
      </div>
      {section.type === 'picture' && (
        <Input
          label="What it shows, for those who can’t see it"
          placeholder="What it shows, for those who can’t see it"
          value={section.alt}
          maxLength={500}
          onChange={(event) => onChange({ ...section, alt: event.target.value })}
        />
      )}
      <Input
        label="What stands below it"
        placeholder="What stands below it"
        value={section.caption}
        maxLength={500}
        onChange={(event) => onChange({ ...section, caption: event.target.value })}
      />
    </div>
  );
}

const FIELD_TYPES = [
  { value: 'text', label: 'a line' },
  { value: 'long', label: 'several lines' },
  { value: 'mail', label: 'a mail address' },
  { value: 'choice', label: 'one of …' },
  { value: 'tick', label: 'a tick' },
] as const;

function FormSection({ section, onChange }: EditorProps<Of<'form'>>) {
  const put = (index: number, field: FormField) =>
    onChange({
      ...section,
      fields: section.fields.map((one, at) => (at === index ? (field as typeof one) : one)),
    });
  return (
    <div className="grid gap-2">
      <TextEditor
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

function PostsSection({ section, onChange }: EditorProps<Of<'posts'>>) {
  const { outline } = useDesk();
  const all = [...outline.addressed.values()];
  const names = (of: (one: (typeof all)[number]) => readonly string[]) =>
    [...new Set(all.flatMap(of))].sort();
  const choose = (
    what: string,
    list: readonly string[],
    value: string | null,
    pick: (value: string | null) => void,
  ) => (
    <Pick
      label={what}
      value={value ?? ''}
      options={[
        { value: '', label: `any ${what.toLowerCase()}` },
        ...list.map((one) => ({ value: one, label: one })),
      ]}
      onPick={(one) => pick(one || null)}
    />
  );
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span>The latest</span>
      <Input
        label="How many posts"
        type="number"
        min={1}
        max={50}
        className="w-16"
        value={section.count}
        onChange={(event) => onChange({ ...section, count: Math.round(Number(event.target.value)) })}
      />
      <span>posts of</span>
      {choose(
        'Category',
        names((one) => (one.facts?.category ? [one.facts.category] : [])),
        section.category,
        (category) => onChange({ ...section, category }),
      )}
      {choose(
        'Tag',
        names((one) => one.facts?.tags ?? []),
        section.tag,
        (tag) => onChange({ ...section, tag }),
      )}
    </div>
  );
}

function FollowSection({ section, onChange }: EditorProps<Of<'follow'>>) {
  const { vocabulary } = useDesk();
  const open = vocabulary.groups.filter((group) => group.open);
  return (
    <div className="grid gap-2">
      <TextEditor
        label={`Text of ${section.title}`}
        text={section.text}
        onChange={(text) => onChange({ ...section, text })}
        rows={3}
      />
      <Pick
        label="Which open group"
        value={section.group}
        options={open.map(({ id, name }) => ({ value: id as string, label: name }))}
        onPick={(group) => onChange({ ...section, group })}
      />
    </div>
  );
}

interface TargetPickProps {
  readonly label: string;
  readonly target: LinkTarget;
  readonly onChange: (target: LinkTarget) => void;
}

/** Where a link or a button leads. */
export function TargetPick({ label, target, onChange }: TargetPickProps) {
  const { outline } = useDesk();
  const items = [...outline.items.values()].flatMap((item) => {
    const path = pathOf(item);
    return path === null
      ? []
      : [{ value: item.id as string, label: `${item.title}  ${isAddressed(item) ? path : 'file'}` }];
  });
  return (
    <>
      <Pick
        label={label}
        value={target.kind === 'item' ? target.item : target.kind}
        options={[
          { value: 'sign in', label: 'sign in' },
          { value: 'sign up', label: 'sign up' },
          { value: 'sign out', label: 'sign out' },
          { value: 'outside', label: 'an address elsewhere …' },
          ...items,
        ]}
        onPick={(value) =>
          onChange(
            value === 'sign in' || value === 'sign up' || value === 'sign out'
              ? { kind: value }
              : value === 'outside'
                ? { kind: 'outside', url: 'https://moor.example/' }
                : { kind: 'item', item: value as ItemId },
          )
        }
      />
      {target.kind === 'outside' && (
        <Input
          label="Address elsewhere"
          value={target.url}
          maxLength={2000}
          onChange={(event) => onChange({ kind: 'outside', url: event.target.value })}
        />
      )}
    </>
  );
}
