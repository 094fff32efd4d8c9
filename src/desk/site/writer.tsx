'use client';
/** Writing a page, a post, a course or an activity: what it is about, its sections in place, and how it will look to whom. */
import { useState } from 'react';
import { toast } from 'sonner';
import {
  ACTIVITIES,
  ACTIVITY_TYPES,
  type Addressed,
  type AddressedKind,
  DONE_WHEN,
  DONE_WHENS,
  type ItemId,
  isAddressed,
  newQuiz,
  newTask,
} from '@/core';
import type { Document, DocumentProblem, SectionRead } from '@/services';
import { Button, Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { CourseParts } from './course-parts';
import { EnrollingEditor } from './enrolling-editor';
import { Preview } from './preview';
import { QuizEditor } from './quiz-editor';
import { SectionList } from './section-list';
import { TakeAway } from './take-away';
import { TaskEditor } from './task-editor';
import { useWriting } from './use-writing';
import { WritingHead } from './writing-head';

export function Writer({ item }: { readonly item: Addressed }) {
  const writing = useWriting(item.id);
  const { reloadSite, setBench, setScreen } = useDesk();
  const { document } = writing;
  if (!document) return <p className="px-8 py-6 text-quiet">{writing.problem ?? 'Opening …'}</p>;
  const put = (over: Partial<Document>) => writing.change({ ...document, ...over });
  const send = async () => {
    if (!(await writing.send())) return;
    toast(`${document.title} is on the site as you wrote it.`);
    await reloadSite();
  };
  return (
    <div className="grid min-h-0 grid-cols-[minmax(0,1fr)_minmax(0,26rem)]">
      <section aria-label={`Writing ${item.title}`} className="min-h-0 overflow-y-auto px-6 py-5">
        <WritingHead
          title={document.title}
          writing={writing}
          theirs={
            writing.theirs &&
            `“${String(writing.theirs.document.title ?? '')}” and has ${
              (writing.theirs.document.sections as readonly unknown[] | undefined)?.length ?? 0
            } sections`
          }
          onSend={() => void send()}
        />
        <About document={document} kind={item.kind} problems={writing.problems} onChange={put} />
        <SectionList
          page={item.id}
          sections={document.sections as readonly SectionRead[]}
          problems={writing.problems}
          onChange={(sections) => put({ sections: sections as Document['sections'] })}
        />
        {document.activity === 'hand-in' && (
          <TaskEditor
            task={document.task ?? { ...newTask, kinds: [...newTask.kinds] }}
            problem={writing.problems.find(({ path }) => path.startsWith('task'))?.message}
            onChange={(task) => put({ task })}
          />
        )}
        {document.activity === 'quiz' && (
          <QuizEditor
            activity={item.id}
            quiz={document.quiz ?? newQuiz}
            problems={writing.problems}
            onChange={(quiz) => put({ quiz: quiz as Document['quiz'] })}
          />
        )}
        {item.kind === 'course' && <CourseParts course={item.id} />}
        <footer className="mt-8 border-thin border-t pt-4">
          <div className="flex flex-wrap items-start gap-2">
            <Button
              weight="quiet"
              onClick={() => {
                setScreen({ kind: 'board' });
                setBench({ kind: 'gates' });
              }}
            >
              Its gates, on the board
            </Button>
            {item.address !== '/' && <TakeAway item={item.id} />}
          </div>
        </footer>
      </section>
      <Preview item={item.id} document={document} />
    </div>
  );
}

interface AboutProps {
  readonly document: Document;
  readonly kind: AddressedKind;
  readonly problems: readonly DocumentProblem[];
  readonly onChange: (over: Partial<Document>) => void;
}

/** What it is about: title, address, summary, and for posts where they belong. */
function About({ document, kind, problems, onChange }: AboutProps) {
  const { outline } = useDesk();
  const { facts } = document;
  const fact = (over: Partial<Document['facts']>) => onChange({ facts: { ...facts, ...over } });
  const problemAt = (path: string) => problems.find((one) => one.path === path)?.message;
  const pictures = [...outline.items.values()].filter(
    (one) => one.kind === 'file' && one.mediaType.startsWith('image/'),
  );
  const posts = [...outline.addressed.values()].filter(isAddressed);
  const categories = [...new Set(posts.flatMap((one) => one.facts?.category ?? []))];
  return (
    <div className="mt-4 grid max-w-3xl gap-2.5">
      <Line name="Title" problem={problemAt('title')}>
        <Input
          label="Title"
          className="w-full"
          value={document.title}
          maxLength={200}
          onChange={(event) => onChange({ title: event.target.value })}
        />
      </Line>
      <Line name="Address" problem={problemAt('address')}>
        <Input
          label="Address"
          className="w-full"
          value={document.address}
          maxLength={500}
          spellCheck={false}
          onChange={(event) => onChange({ address: event.target.value })}
        />
      </Line>
      <Line name="Summary" problem={problemAt('summary')}>
        <textarea
          aria-label="Summary"
          rows={2}
          maxLength={2000}
          value={document.summary}
          placeholder="Left empty, lists show the first words of what everybody may read."
          onChange={(event) => onChange({ summary: event.target.value })}
          className="w-full rounded-[3px] border border-iron bg-raised px-2 py-1"
        />
      </Line>
      {kind === 'post' && (
        <>
          <Line name="Category" problem={problemAt('facts.category')}>
            <Input
              label="Category"
              list="known-categories"
              value={facts.category ?? ''}
              maxLength={200}
              onChange={(event) => fact({ category: event.target.value || null })}
            />
            <datalist id="known-categories">
              {categories.map((one) => (
                <option key={one} value={one} />
              ))}
            </datalist>
          </Line>
          <Line name="Tags" problem={problemAt('facts.tags')}>
            <Tags tags={facts.tags} onChange={(tags) => fact({ tags })} />
          </Line>
          <Line name="Author" problem={problemAt('facts.author')}>
            <Input
              label="Author"
              value={facts.author ?? ''}
              maxLength={200}
              onChange={(event) => fact({ author: event.target.value || null })}
            />
          </Line>
          <Line name="Date" problem={problemAt('facts.date')}>
            <Input
              label="Date"
              type="date"
              value={facts.date ?? ''}
              onChange={(event) => fact({ date: event.target.value || null })}
            />
          </Line>
        </>
      )}
      <Line name="Picture" problem={problemAt('facts.picture')}>
        <Pick
          label="Picture"
          value={facts.picture ?? ''}
          options={[
            { value: '', label: 'none' },
            ...pictures.map((one) => ({ value: one.id as string, label: one.title })),
          ]}
          onPick={(id) => fact({ picture: (id || null) as ItemId | null })}
        />
      </Line>
      {kind === 'activity' && (
        <Line name="Type" problem={problemAt('activity')}>
          <Pick
            label="Type of the activity"
            value={document.activity ?? 'reading'}
            options={ACTIVITY_TYPES.map((type) => ({ value: type, label: ACTIVITIES[type].one }))}
            onPick={(activity) => onChange({ activity })}
          />
        </Line>
      )}
      {document.activity === 'reading' && (
        <Line name="Done when" problem={problemAt('doneWhen')}>
          <Pick
            label="When a learner is done with it"
            // What was written before there was a choice lacks it.
            value={document.doneWhen ?? 'said'}
            options={DONE_WHENS.map((when) => ({ value: when, label: DONE_WHEN[when] }))}
            onPick={(doneWhen) => onChange({ doneWhen })}
          />
        </Line>
      )}
      {document.enrolling && (
        <EnrollingEditor
          enrolling={document.enrolling}
          problem={problems.find(({ path }) => path.startsWith('enrolling'))?.message}
          onChange={(enrolling) => onChange({ enrolling })}
        />
      )}
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          checked={document.published}
          onChange={(event) => onChange({ published: event.target.checked })}
        />
        Published: without this it is missing for everyone
      </label>
    </div>
  );
}

/** Tags with commas between them; typed as they are, read when one is done. */
function Tags({
  tags,
  onChange,
}: {
  readonly tags: readonly string[];
  readonly onChange: (tags: string[]) => void;
}) {
  const [text, setText] = useState(tags.join(', '));
  return (
    <Input
      label="Tags"
      value={text}
      placeholder="with commas between them"
      className="w-full"
      onChange={(event) => {
        setText(event.target.value);
        onChange([
          ...new Set(
            event.target.value
              .split(',')
              .map((tag) => tag.trim())
              .filter(Boolean),
          ),
        ]);
      }}
    />
  );
}

interface LineProps {
  readonly name: string;
  readonly problem: string | undefined;
  readonly children: React.ReactNode;
}

export const Line = ({ name, problem, children }: LineProps) => (
  <div className="grid grid-cols-[5rem_minmax(0,1fr)] items-start gap-2">
    <span className="pt-1 text-quiet">{name}</span>
    <div className="grid justify-items-start gap-1">
      {children}
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
    </div>
  </div>
);
