'use client';
/** Writing a quiz: on which terms it is taken, and its questions in place. */
import { ANSWERS_SHOWN, ANSWERS_SHOWN_WHEN, type ItemId, type Question, type Quiz } from '@/core';
import type { DocumentProblem } from '@/services';
import { Button, Pick } from '@/ui';
import { NumberInput } from '../number-input';
import { DragList } from './drag-list';
import { newQuestion } from './new-question';
import { QuestionEditor } from './question-editor';
import { QuizPackage } from './quiz-package';

interface QuizEditorProps {
  readonly activity: ItemId;
  readonly quiz: Quiz;
  readonly problems: readonly DocumentProblem[];
  readonly onChange: (quiz: Quiz) => void;
}

export function QuizEditor({ activity, quiz, problems, onChange }: QuizEditorProps) {
  const { questions } = quiz;
  const setQuestions = (next: readonly Question[]) => onChange({ ...quiz, questions: next });
  const ofQuestion = (at: number) =>
    problems.filter(({ path }) => path.split('.').slice(0, 3).join('.') === `quiz.questions.${at}`);
  const ofQuiz = problems.filter(({ path }) => /^quiz(\.(?!questions\.)|$)/.test(path));
  return (
    <section aria-label="Quiz" className="mt-8">
      <h3 className="mb-2">Questions</h3>
      <Terms quiz={quiz} onChange={onChange} />
      {ofQuiz.map(({ path, message }) => (
        <p key={`${path} ${message}`} role="alert" className="mt-2 text-alarm">
          {message}
        </p>
      ))}
      <div className="mt-3">
        <DragList
          label="Questions"
          items={questions}
          onChange={setQuestions}
          nameOf={(_, at) => `question ${at + 1}`}
        >
          {(question, at, handle) => (
            <QuestionEditor
              question={question}
              number={at + 1}
              handle={handle}
              problems={ofQuestion(at)}
              onChange={(next) => setQuestions(questions.map((one, place) => (place === at ? next : one)))}
              onRemove={() => setQuestions(questions.filter((_, place) => place !== at))}
            />
          )}
        </DragList>
        <Button onClick={() => setQuestions([...questions, newQuestion()])}>+ a question</Button>
      </div>
      <QuizPackage activity={activity} quiz={quiz} onChange={onChange} />
    </section>
  );
}

interface TermsProps {
  readonly quiz: Quiz;
  readonly onChange: (quiz: Quiz) => void;
}

/** The terms, as sentences with gaps. */
function Terms({ quiz, onChange }: TermsProps) {
  const put = (over: Partial<Quiz>) => onChange({ ...quiz, ...over });
  const { passMark, attempts, wait, minutes, draw, shuffle, counts, answers, questions } = quiz;
  return (
    <div className="grid max-w-3xl gap-2 border border-thin bg-raised px-3 py-2.5 text-quiet">
      <p className="flex flex-wrap items-center gap-1.5">
        Passed with
        <NumberInput
          label="Pass mark, in per cent"
          value={passMark}
          onChange={(value) => put({ passMark: value ?? 0 })}
        />
        %. Tried
        <NumberInput
          label="How many attempts"
          value={attempts}
          placeholder="any"
          onChange={(value) => put({ attempts: value })}
        />
        times at most, with
        <NumberInput
          label="Minutes between attempts"
          value={wait}
          onChange={(value) => put({ wait: value ?? 0 })}
        />
        minutes in between; the
        <Pick
          label="Which score counts"
          value={counts}
          options={[
            { value: 'best', label: 'best' },
            { value: 'last', label: 'last' },
          ]}
          onPick={(value) => put({ counts: value })}
        />
        score counts.
      </p>
      <p className="flex flex-wrap items-center gap-1.5">
        Asks
        <NumberInput
          label="How many questions are asked"
          value={draw}
          placeholder="all"
          onChange={(value) => put({ draw: value })}
        />
        of {questions.length}, in
        <Pick
          label="In which order"
          value={shuffle ? 'another' : 'this'}
          options={[
            { value: 'this', label: 'this order' },
            { value: 'another', label: 'another order each time' },
          ]}
          onPick={(value) => put({ shuffle: value === 'another' })}
        />
        and takes
        <NumberInput
          label="How many minutes an attempt may take"
          value={minutes}
          placeholder="any"
          onChange={(value) => put({ minutes: value })}
        />
        minutes at most.
      </p>
      <p className="flex flex-wrap items-center gap-1.5">
        Learners are told what would have been right
        <Pick
          label="When the right answers are shown"
          value={answers}
          options={ANSWERS_SHOWN_WHEN.map((value) => ({ value, label: ANSWERS_SHOWN[value] }))}
          onPick={(value) => put({ answers: value })}
        />
        and not before.
      </p>
    </div>
  );
}
