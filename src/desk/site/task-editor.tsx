'use client';
/** What may be handed in, in sentences with gaps. */
import { english, HANDED_IN_KINDS, MOST_HANDED_FILES, MOST_MEGABYTES } from '@/core';
import type { Document } from '@/services';
import { Pick } from '@/ui';
import { NumberInput } from '../number-input';

type Task = NonNullable<Document['task']>;

interface TaskProps {
  readonly task: Task;
  readonly problem: string | undefined;
  readonly onChange: (task: Task) => void;
}

export function TaskEditor({ task, problem, onChange }: TaskProps) {
  const put = (over: Partial<Task>) => onChange({ ...task, ...over });
  return (
    <section aria-label="What is handed in" className="mt-8 max-w-3xl">
      <h3 className="text-lg">What is handed in</h3>
      <p className="note mb-3">
        Every version is kept. A tutor accepts it, with which its learner is done, or gives it back with
        words.
      </p>
      <div className="grid justify-items-start gap-2">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={task.text}
            onChange={(event) => put({ text: event.target.checked })}
          />
          They may write something
        </label>
        <span className="flex flex-wrap items-center gap-2">
          They may hand in
          <Pick
            label="How many files"
            value={String(task.files)}
            options={Array.from({ length: MOST_HANDED_FILES + 1 }, (_, count) => ({
              value: String(count),
              label: count === 0 ? 'no files' : count === 1 ? 'one file' : `up to ${count} files`,
            }))}
            onPick={(files) => put({ files: Number(files) })}
          />
          {task.files > 0 && (
            <>
              of at most
              <NumberInput
                label={`How large a file may be, in MB: at most ${MOST_MEGABYTES}`}
                value={task.megabytes}
                onChange={(megabytes) => put({ megabytes: megabytes ?? 0 })}
              />
              MB
            </>
          )}
        </span>
        {task.files > 0 && (
          <fieldset className="flex flex-wrap items-center gap-x-4 gap-y-1">
            <legend className="sr-only">Kinds of file that are taken</legend>
            {HANDED_IN_KINDS.map((kind) => (
              <label key={kind} className="flex items-center gap-1.5">
                <input
                  type="checkbox"
                  checked={task.kinds.includes(kind)}
                  onChange={(event) =>
                    put({
                      kinds: HANDED_IN_KINDS.filter((one) =>
                        one === kind ? event.target.checked : task.kinds.includes(one),
                      ),
                    })
                  }
                />
                {english.handIn.kinds[kind]}
              </label>
            ))}
          </fieldset>
        )}
      </div>
      {problem && (
        <p role="alert" className="mt-2 text-alarm">
          {problem}
        </p>
      )}
    </section>
  );
}
