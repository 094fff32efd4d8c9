'use client';
import { asId, type LevelId, nameOfId, type ProductTerms } from '@/core';
import { Input, Pick } from '@/ui';
import { useDesk } from '../context';
import { Field, Toggles } from '../people';

type Grants = ProductTerms['grants'];

interface EditorProps {
  readonly grants: Grants;
  readonly problem: string | undefined;
  readonly onChange: (grants: Grants) => void;
}

const NONE = '';

/** What a product gives, to be changed. */
export function GrantsEditor({ grants, problem, onChange }: EditorProps) {
  const { vocabulary } = useDesk();
  const put = (change: Partial<Grants>) => onChange({ ...grants, ...change });
  return (
    <section aria-label="What it gives" className="grid gap-3">
      <h3>What it gives, for as long as somebody has it</h3>
      {problem && (
        <p role="alert" className="text-alarm">
          {problem}
        </p>
      )}
      <Field label="Level" problem={undefined}>
        <Pick
          label="Level"
          value={grants.level ?? NONE}
          options={[
            { value: NONE, label: 'none' },
            ...vocabulary.levels.map(({ id, name: label }) => ({ value: id as string, label })),
          ]}
          onPick={(level) => put({ level: level === NONE ? null : asId<LevelId>(level) })}
        />
      </Field>
      <Field label="Groups" problem={undefined}>
        <Toggles
          label="Groups"
          all={vocabulary.groups}
          held={grants.groups}
          onChange={(groups) => put({ groups })}
        />
      </Field>
      <Field label="Roles" problem={undefined}>
        <Toggles
          label="Roles"
          all={vocabulary.roles}
          held={grants.roles}
          onChange={(roles) => put({ roles })}
        />
      </Field>
      {vocabulary.courses.length > 0 && (
        <Field label="Courses" problem={undefined}>
          <Toggles
            label="Courses"
            all={vocabulary.courses}
            held={grants.enrolments.map(({ course }) => course)}
            onChange={(courses) =>
              put({
                enrolments: courses.map(
                  (course) =>
                    grants.enrolments.find((one) => one.course === course) ?? {
                      course,
                      days: null,
                    },
                ),
              })
            }
          />
          {grants.enrolments.map((one) => (
            <span key={one.course} className="flex items-center gap-2">
              {nameOfId(vocabulary, 'course', one.course)} for
              <Input
                label={`Days in ${nameOfId(vocabulary, 'course', one.course)}`}
                type="number"
                min={1}
                max={3650}
                className="w-20"
                placeholder="all"
                value={one.days ?? ''}
                onChange={({ target }) =>
                  put({
                    enrolments: grants.enrolments.map((other) =>
                      other.course === one.course
                        ? { ...other, days: target.value === '' ? null : target.valueAsNumber }
                        : other,
                    ),
                  })
                }
              />
              days
            </span>
          ))}
        </Field>
      )}
    </section>
  );
}
