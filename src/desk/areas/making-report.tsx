'use client';
/** What making areas would come to, or everything that keeps them from being made. */
import { counted } from '@/core';
import type { AreasReport } from '@/services';
import type { Answer } from '../service';

interface Problem {
  readonly area: number | null;
  readonly line: number | null;
  readonly message: string;
}

/** What is wrong with what was asked for, each where it is. */
export function problemsOf(answer: Answer<unknown> | null): readonly Problem[] {
  return !answer || answer.ok || !Array.isArray(answer.body.problems)
    ? []
    : (answer.body.problems as readonly Problem[]);
}

interface ReportProps {
  readonly answer: Answer<{ readonly report: AreasReport }> | null;
  readonly inFile: boolean;
}

const MOST_LISTED = 8;

export function MakingReport({ answer, inFile }: ReportProps) {
  if (!answer) return <p className="note">Looking …</p>;
  if (!answer.ok) {
    const problems = problemsOf(answer);
    // What belongs to one that was typed stands there.
    const whole = problems.filter(({ area }) => area === null);
    if (problems.length === 0)
      return (
        <p role="alert" className="text-alarm">
          {answer.title}
        </p>
      );
    return whole.length === 0 ? null : (
      <section aria-label="Problems">
        <h3 className="mb-1 text-alarm">{counted(whole.length, 'problem')}</h3>
        {inFile && <p className="note mb-2">Mend the file and choose it again. Nothing was made.</p>}
        <ul className="grid max-h-80 gap-1.5 overflow-y-auto">
          {whole.map(({ line, message }) => (
            <li key={`${line} ${message}`} className="border-alarm border-l-3 pl-2.5">
              {line !== null && <span className="text-quiet">Line {line}: </span>}
              {message}
            </li>
          ))}
        </ul>
      </section>
    );
  }
  const { areas, makes, opensTo, widened, keptOut, broken } = answer.value.report;
  const more = areas.length - MOST_LISTED;
  return (
    <section
      aria-label="What that comes to"
      className="grid gap-2 border-thin border-t pt-4"
      data-testid="making"
    >
      <h3>What that comes to</h3>
      <p>{makes.join(' · ')}</p>
      <table className="text-left">
        <tbody>
          {areas.slice(0, MOST_LISTED).map(({ name, address, people }) => (
            <tr key={address} className="border-thin border-t align-top">
              <td className="py-1 pr-3">
                <strong>{name}</strong>
                <span className="note block">{address}</span>
              </td>
              <td className="py-1">
                {people.length === 0 ? (
                  <span className="text-quiet">nobody yet</span>
                ) : (
                  people.slice(0, 5).map((one) => (
                    <span key={one.email} className="block">
                      {one.name} <span className="note">{one.isNew ? 'new' : 'has an account'}</span>
                    </span>
                  ))
                )}
                {people.length > 5 && <span className="note">and {people.length - 5} more</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {more > 0 && <p className="note">and {counted(more, 'more area', 'more areas')}</p>}
      <p>
        {areas.length === 1 ? 'It opens' : 'The first opens'} to {opensTo}; nobody gains or loses anything
        else.
      </p>
      {widened.length > 0 && (
        <p>Gates that point into what is copied cover the copies as well: {widened.join('; ')}.</p>
      )}
      {keptOut.length > 0 && (
        <p role="alert" className="border-teaser border-l-3 pl-3">
          Another gate keeps some out of what is to be theirs. {keptOut.join('. ')}.
        </p>
      )}
      {broken.length > 0 && (
        <div role="alert" className="border-alarm border-l-3 pl-3">
          <p>This would no longer be as it is expected, so nothing can be made:</p>
          <ul>
            {broken.map(({ expected, instead }) => (
              <li key={expected}>
                {expected}. <span className="text-quiet">{instead}</span>
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
