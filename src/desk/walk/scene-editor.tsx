'use client';
/** When it is on a walk, and what the visitor's browser says. */
import { Popover } from 'radix-ui';
import { type FormEvent, useState } from 'react';
import { DEVICES, type RequestFacts } from '@/core';
import type { WalkScene } from '@/services';
import { Button, Input, Pick } from '@/ui';

const ANY = ' ';

interface SceneEditorProps {
  readonly scene: WalkScene;
  readonly now: RequestFacts;
  /** Answers what is wrong, or null. */
  readonly onSet: (scene: WalkScene) => Promise<string | null>;
}

export function SceneEditor({ scene, now, onSet }: SceneEditorProps) {
  const [open, setOpen] = useState(false);
  const [form, setForm] = useState(scene);
  const [problem, setProblem] = useState<string | null>(null);
  const set = async (next: WalkScene) => {
    const wrong = await onSet(next);
    setProblem(wrong);
    if (wrong === null) setOpen(false);
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void set(form);
  };
  return (
    <Popover.Root
      open={open}
      onOpenChange={(next) => {
        setOpen(next);
        setForm(scene);
        setProblem(null);
      }}
    >
      <Popover.Trigger asChild>
        <Button title="When, from where and on what device">{sceneInWords(scene)}</Button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={4}
          collisionPadding={8}
          className="z-30 w-80 rounded-[4px] border border-iron bg-raised p-4 shadow-[0_6px_24px_rgb(0_0_0/0.18)]"
        >
          <form onSubmit={submit} className="grid gap-3">
            <div className="grid gap-1">
              <span className="text-quiet">Moment, by the site’s clock</span>
              <Input
                label="Moment"
                type="datetime-local"
                value={form.at ?? ''}
                onChange={(event) => setForm(changed(form, 'at', event.target.value.slice(0, 16)))}
              />
              {form.at === undefined && (
                <span className="note">
                  The present: {now.weekday}, {now.today}
                </span>
              )}
            </div>
            <div className="grid gap-1">
              <span className="text-quiet">Device</span>
              <Pick
                label="Device"
                value={form.device ?? ANY}
                options={[
                  { value: ANY, label: 'not known' },
                  ...DEVICES.map((device) => ({ value: device, label: device })),
                ]}
                onPick={(device) => setForm(changed(form, 'device', device === ANY ? '' : device))}
              />
            </div>
            <div className="grid gap-1">
              <span className="text-quiet">Came by a link on</span>
              <Input
                label="Host of the page with the link"
                placeholder="news.example"
                value={form.referrer ?? ''}
                onChange={(event) => setForm(changed(form, 'referrer', event.target.value))}
              />
            </div>
            <div className="grid gap-1">
              <span className="text-quiet">Language</span>
              <Input
                label="Language"
                placeholder="not known"
                value={form.language ?? ''}
                onChange={(event) => setForm(changed(form, 'language', event.target.value))}
                className="w-32"
              />
            </div>
            {problem && (
              <p role="alert" className="text-alarm">
                {problem}
              </p>
            )}
            <span className="flex gap-2">
              <Button weight="main" type="submit">
                Walk like this
              </Button>
              <Button weight="quiet" onClick={() => void set({})}>
                As it is now
              </Button>
            </span>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function changed<K extends keyof WalkScene>(scene: WalkScene, part: K, value: string): WalkScene {
  const { [part]: _, ...rest } = scene;
  return value === '' ? rest : ({ ...rest, [part]: value } as WalkScene);
}

const sceneInWords = ({ at, device, referrer, language }: WalkScene): string =>
  [
    at?.replace('T', ', ') ?? 'Now',
    device ? `on a ${device}` : 'any device',
    referrer && `from ${referrer}`,
    language,
  ]
    .filter(Boolean)
    .join(' · ');
