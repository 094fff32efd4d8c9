'use client';
/** A section that shows a picture or a video: one to choose, or to upload, and what is said of it. */
import { useRef, useState } from 'react';
import { toast } from 'sonner';
import type { ItemId } from '@/core';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import type { EditorProps, Of } from './section-props';
import { TextEditor } from './text-editor';
import { upload } from './upload';

export function FileSection({ page, section, onChange }: EditorProps<Of<'picture'> | Of<'video'>>) {
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
      {section.type === 'video' && (
        <>
          <Pick
            label="Captions"
            value={section.captions ?? ''}
            options={[
              { value: '', label: 'no captions' },
              ...[...outline.items.values()].flatMap((one) =>
                one.kind === 'file' && one.mediaType === 'text/vtt'
                  ? [{ value: one.id as string, label: `captions: ${one.title}` }]
                  : [],
              ),
            ]}
            onPick={(captions) => onChange({ ...section, captions: captions || null })}
          />
          <TextEditor
            page={page}
            label={`${section.title} in words, for those who can’t see or hear it`}
            text={section.text ?? ''}
            onChange={(text) => onChange({ ...section, text })}
            rows={4}
          />
        </>
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
