'use client';
/** Changing a section: its text, and what it holds beside it. */
import type { LinkTarget } from '@/core';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { FileSection } from './file-section';
import { FormSection } from './form-section';
import type { EditorProps, Of } from './section-props';
import { TargetPick } from './target-pick';
import { TextEditor } from './text-editor';

/** What a section holds, by its type. */
export function SectionEditor({ page, section, onChange }: EditorProps) {
  switch (section.type) {
    case 'text':
      return (
        <TextEditor
          page={page}
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
            page={page}
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
    case 'outline':
      return <OutlineSection page={page} section={section} onChange={onChange} />;
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
    case 'prices':
      return <PricesSection page={page} section={section} onChange={onChange} />;
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

function OutlineSection({ section, onChange }: EditorProps<Of<'outline'>>) {
  const { outline } = useDesk();
  const courses = [...outline.addressed.values()].filter(({ kind }) => kind === 'course');
  return (
    <p className="flex flex-wrap items-center gap-2">
      <Pick
        label="Which course"
        value={section.course}
        options={courses.map(({ id, title }) => ({ value: id as string, label: title }))}
        onPick={(course) => onChange({ ...section, course })}
      />
      <span className="note">
        Each visitor gets what is open to them, what is locked with its reason, and how far they are.
      </span>
    </p>
  );
}

function PricesSection({ page, section, onChange }: EditorProps<Of<'prices'>>) {
  const { vocabulary } = useDesk();
  const { products } = section;
  return (
    <div className="grid gap-2">
      <TextEditor
        page={page}
        label={`Text of ${section.title}`}
        text={section.text}
        onChange={(text) => onChange({ ...section, text })}
        rows={3}
      />
      <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <legend className="text-quiet">What it lists</legend>
        {vocabulary.products.map(({ id, name }) => (
          <label key={id} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={products.includes(id)}
              onChange={({ target }) =>
                onChange({
                  ...section,
                  products: target.checked ? [...products, id] : products.filter((one) => one !== id),
                })
              }
            />
            {name}
          </label>
        ))}
      </fieldset>
      <p className="note">
        {products.length === 0 ? 'Everything that is sold. ' : ''}Each visitor gets the prices that are
        theirs.
      </p>
    </div>
  );
}

function FollowSection({ page, section, onChange }: EditorProps<Of<'follow'>>) {
  const { vocabulary } = useDesk();
  const open = vocabulary.groups.filter((group) => group.open);
  return (
    <div className="grid gap-2">
      <TextEditor
        page={page}
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
