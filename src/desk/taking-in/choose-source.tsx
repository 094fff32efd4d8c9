'use client';
/** Where something is taken in from: a folder or an archive of this machine, or a sitemap on the web. */
import { FolderOpen } from 'lucide-react';
import { type DragEvent, useState } from 'react';
import { Button, Choice, Input } from '@/ui';
import { Field } from '../people';
import { type FileInFolder, filesChosen, filesDropped, zipOf } from './folder-as-zip';
import type { Taking } from './use-taking';

export function ChooseSource({ taking }: { readonly taking: Taking }) {
  const [from, setFrom] = useState<'folder' | 'web'>('folder');
  return (
    <div className="grid gap-4">
      <div>
        <Choice
          label="Where it is"
          value={from}
          options={[
            { value: 'folder', label: 'A folder' },
            { value: 'web', label: 'A site on the web' },
          ]}
          onChoose={setFrom}
        />
      </div>
      {from === 'folder' ? <FromFolder taking={taking} /> : <FromWeb taking={taking} />}
    </div>
  );
}

const CHOOSE =
  'inline-block cursor-pointer rounded-[3px] border border-iron bg-raised px-2.5 py-1 leading-5 focus-within:outline-2 hover:border-copper hover:text-copper';

function FromFolder({ taking: { send } }: { readonly taking: Taking }) {
  const [over, setOver] = useState(false);
  const take = (files: readonly FileInFolder[]) => {
    const [first] = files;
    if (!first) return;
    // One archive is sent as it is.
    if (files.length === 1 && /\.zip$/i.test(first.path))
      void send(async () => first.file, first.file.name, 1);
    else void send(() => zipOf(files), first.path.split('/')[0] ?? 'a folder', files.length);
  };
  const drop = async (event: DragEvent) => {
    event.preventDefault();
    setOver(false);
    take(await filesDropped(event.dataTransfer.items));
  };
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: what can be dropped here can be chosen by the buttons in it
    <div
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => void drop(event)}
      data-over={over}
      className="grid justify-items-start gap-3 rounded-[3px] border border-iron border-dashed px-5 py-6 data-[over=true]:border-copper data-[over=true]:bg-wash"
    >
      <p className="flex items-center gap-2">
        <FolderOpen size={18} aria-hidden="true" className="text-quiet" />
        Drop a folder or a ZIP archive here, or
      </p>
      <p className="flex flex-wrap gap-2">
        <label className={CHOOSE}>
          Choose a folder
          <input
            type="file"
            multiple
            className="sr-only"
            ref={(input) => input?.setAttribute('webkitdirectory', '')}
            onChange={({ target }) => {
              if (target.files) take(filesChosen(target.files));
              target.value = '';
            }}
          />
        </label>
        <label className={CHOOSE}>
          Choose an archive
          <input
            type="file"
            accept=".zip,application/zip"
            className="sr-only"
            onChange={({ target }) => {
              if (target.files) take([...target.files].map((file) => ({ path: file.name, file })));
              target.value = '';
            }}
          />
        </label>
      </p>
      <p className="note">Files that end in .md, .markdown, .html or .htm, with their pictures and papers.</p>
    </div>
  );
}

function FromWeb({ taking: { readWeb } }: { readonly taking: Taking }) {
  const [sitemap, setSitemap] = useState('');
  const [begins, setBegins] = useState('');
  return (
    <form
      className="grid gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        readWeb({ sitemap: sitemap.trim(), begins: begins.trim() });
      }}
    >
      <Field label="Address of its sitemap" problem={undefined}>
        <Input
          label="Address of its sitemap"
          type="url"
          required
          value={sitemap}
          placeholder="https://…/sitemap.xml"
          onChange={({ target }) => setSitemap(target.value)}
        />
      </Field>
      <Field label="Only what begins with" problem={undefined}>
        <Input
          label="Only what begins with"
          value={begins}
          placeholder="everything"
          onChange={({ target }) => setBegins(target.value)}
        />
      </Field>
      <p className="note">
        Its pages are read one after the other, four at a time. Of each the main part is taken, without what
        stands around it.
      </p>
      <p>
        <Button type="submit" weight="main">
          Read it
        </Button>
      </p>
    </form>
  );
}
