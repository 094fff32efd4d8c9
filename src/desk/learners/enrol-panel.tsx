'use client';
/** Enrolling people by their mail addresses, looked at before it is done. */
import { useState } from 'react';
import { toast } from 'sonner';
import { counted, listed } from '@/core';
import type { EnrolPreview } from '@/services';
import { Button, Input } from '@/ui';
import { Panel } from '../panel';
import { ask } from '../service';

interface EnrolProps {
  readonly course: string;
  readonly title: string;
  readonly onClose: () => void;
  readonly onEnrolled: () => void;
}

export function EnrolPanel({ course, title, onClose, onEnrolled }: EnrolProps) {
  const [text, setText] = useState('');
  const [why, setWhy] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [preview, setPreview] = useState<EnrolPreview | null>(null);
  const path = `courses/${encodeURIComponent(course)}`;
  const look = async () => {
    const answer = await ask<EnrolPreview>('POST', `${path}?dry`, { text, why });
    setProblem(answer.ok ? null : answer.title);
    setPreview(answer.ok ? answer.value : null);
  };
  const enrol = async () => {
    const answer = await ask<{ readonly summary: string }>('POST', path, { text, why });
    if (!answer.ok) return setProblem(answer.title);
    toast(answer.value.summary);
    onEnrolled();
  };
  return (
    <Panel
      title="Enrol"
      note={`In ${title}. A mail address on each line; behind a comma the day it ends, if there is one.`}
      closes="Close"
      onClose={onClose}
    >
      <div className="grid gap-3">
        <textarea
          aria-label="Mail addresses"
          rows={8}
          spellCheck={false}
          placeholder={'name@place.example\nother@place.example, 2027-06-30'}
          value={text}
          onChange={(event) => {
            setText(event.target.value);
            setPreview(null);
            setProblem(null);
          }}
          className="w-full rounded-[3px] border border-iron bg-paper px-2 py-1.5 font-mono text-[0.82rem]"
        />
        <Input
          label="Why"
          placeholder="Why, if you like"
          value={why}
          maxLength={500}
          onChange={(event) => setWhy(event.target.value)}
        />
        {problem && (
          <p role="alert" className="text-alarm">
            {problem}
          </p>
        )}
        {preview && (
          <p role="status">
            {preview.enrolled.length === 0
              ? 'All of them are enrolled like that already.'
              : `Would enrol ${listed(preview.enrolled.slice(0, 8))}${preview.enrolled.length > 8 ? ` and ${counted(preview.enrolled.length - 8, 'other')}` : ''}.`}
            {preview.enrolled.length > 0 &&
              preview.already.length > 0 &&
              ` ${listed(preview.already.slice(0, 8))} already ${preview.already.length === 1 ? 'is' : 'are'}.`}
          </p>
        )}
        <p>
          {preview && preview.enrolled.length > 0 ? (
            <Button weight="main" onClick={() => void enrol()}>
              Enrol {counted(preview.enrolled.length, 'person', 'people')}
            </Button>
          ) : (
            <Button disabled={text.trim() === ''} onClick={() => void look()}>
              See who that is
            </Button>
          )}
        </p>
      </div>
    </Panel>
  );
}
