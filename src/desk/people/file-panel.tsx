'use client';
/** People as a file: out as a spreadsheet reads it, in after a dry run with every problem. */
import { type ChangeEvent, useEffect, useRef, useState } from 'react';
import { counted } from '@/core';
import type { CsvDryRun } from '@/services';
import { Button, Pick } from '@/ui';
import { Panel } from '../panel';
import { ask } from '../service';
import { Invitations } from './invite';
import { LatestChanges } from './latest-changes';
import { useChange } from './use-change';

interface FileProps {
  readonly text: string;
  readonly condition: string;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
}

export function FilePanel({ text, condition, open, onOpen }: FileProps) {
  const [taken, setTaken] = useState<File | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const query = new URLSearchParams({ ...(text && { q: text }), ...(condition && { who: condition }) });
  const address = (more: object = {}) =>
    `/desk/api/people/csv?${new URLSearchParams({ ...Object.fromEntries(query), ...more })}`;
  const take = (event: ChangeEvent<HTMLInputElement>) => {
    const [file] = event.target.files ?? [];
    if (!file) return;
    setTaken(file);
    onOpen(true);
    event.target.value = '';
  };
  if (open && taken) {
    return (
      <DryRun
        file={taken}
        onClose={() => {
          onOpen(false);
          setTaken(null);
        }}
      />
    );
  }
  return (
    <Panel title="People" note="Choose some on the left to change them together.">
      <div className="grid gap-5">
        <section className="kept">
          <h3>Out</h3>
          <p>
            {text || condition ? 'Those found on the left' : 'Everybody'}, as CSV:{' '}
            <a href={address()} download className="underline underline-offset-3 hover:text-copper">
              UTF-8
            </a>
            , or{' '}
            <a
              href={address({ bom: '1' })}
              download
              className="underline underline-offset-3 hover:text-copper"
            >
              with a byte order mark
            </a>{' '}
            for spreadsheets that need one.
          </p>
          <p className="note">
            What a spreadsheet would run as a formula goes out with an apostrophe before it.
          </p>
        </section>
        <section className="kept">
          <h3>In</h3>
          <p>
            The first line names the columns; the mail address tells people apart. A column that is in the
            file is what the file says: an empty cell clears it. Several groups stand in one cell with “;”
            between them.
          </p>
          <input
            ref={input}
            type="file"
            accept=".csv,text/csv"
            aria-label="A file of people"
            onChange={take}
            className="sr-only"
          />
          <Button onClick={() => input.current?.click()}>Take in a file …</Button>
          <p className="note">A dry run comes first. A file with any problem changes nothing.</p>
        </section>
        <Invitations />
        <LatestChanges />
      </div>
    </Panel>
  );
}

const addressOf = (columns: readonly string[] | null, more: Readonly<Record<string, string>> = {}) =>
  `people/csv?${new URLSearchParams({ ...more, ...(columns && { columns: JSON.stringify(columns) }) })}`;

function DryRun({ file, onClose }: { readonly file: File; readonly onClose: () => void }) {
  const [columns, setColumns] = useState<readonly string[] | null>(null);
  const [report, setReport] = useState<CsvDryRun | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const [going, setGoing] = useState(false);
  const change = useChange();
  useEffect(() => {
    const calledOff = new AbortController();
    ask<CsvDryRun>('POST', addressOf(columns, { dry: '' }), file, calledOff.signal).then(
      (answer) => {
        setProblem(answer.ok ? null : answer.title);
        if (answer.ok) setReport(answer.value);
      },
      () => undefined,
    );
    return () => calledOff.abort();
  }, [file, columns]);
  const go = async () => {
    setGoing(true);
    const done = await change('POST', addressOf(report?.columns ?? null), file);
    setGoing(false);
    if (done.ok) onClose();
    else setProblem(done.title);
  };
  const changes = report ? report.adds + report.changes : 0;
  return (
    <Panel
      title={file.name}
      note="A dry run: nothing is changed yet."
      onClose={onClose}
      closes="Leave this file"
    >
      {problem && (
        <p role="alert" className="mb-3 text-alarm">
          {problem}
        </p>
      )}
      {!report && !problem && <p className="note">Reading …</p>}
      {report && (
        <div className="grid gap-4" data-testid="dry-run">
          <p>
            {counted(report.lines, 'line')}: <strong className="text-open">{report.adds} new</strong>,{' '}
            <strong>{report.changes} changed</strong>, {report.unchanged} as they are.
          </p>
          <p className="note">{report.readAs}</p>
          {report.headers.length > 0 && (
            <table>
              <thead>
                <tr className="text-left text-quiet">
                  <th className="font-normal">Column</th>
                  <th className="font-normal">holds</th>
                </tr>
              </thead>
              <tbody>
                {report.headers.map((header, at) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: columns have no identity but their place
                  <tr key={at}>
                    <td className="max-w-40 truncate py-0.5 pr-3">{header || <em>no name</em>}</td>
                    <td className="py-0.5">
                      <Pick
                        label={`What ${header} holds`}
                        value={report.columns[at] ?? 'ignore'}
                        options={[
                          { value: 'ignore', label: 'nothing for us' },
                          ...report.choices.map(({ target, header: name }) => ({
                            value: target,
                            label: name,
                          })),
                        ]}
                        onPick={(target) =>
                          setColumns(report.columns.map((one, n) => (n === at ? target : one)))
                        }
                      />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {report.problemCount > 0 && (
            <section>
              <h3 className="mb-1 text-alarm">{counted(report.problemCount, 'problem')}</h3>
              <p className="note mb-2">Mend the file and take it in again. Nothing was changed.</p>
              <ul className="grid max-h-80 gap-1.5 overflow-y-auto">
                {report.problems.map((one) => (
                  <li
                    key={`${one.line} ${one.column} ${one.message}`}
                    className="border-alarm border-l-3 pl-2.5"
                  >
                    <span className="text-quiet">
                      Line {one.line}
                      {one.column > 0 && `, column ${one.column}`}:
                    </span>{' '}
                    {one.message}
                  </li>
                ))}
              </ul>
              {report.problemCount > report.problems.length && (
                <p className="note mt-1">These are the first {report.problems.length}.</p>
              )}
            </section>
          )}
          <div>
            <Button
              weight="main"
              disabled={going || report.problemCount > 0 || changes === 0}
              onClick={() => void go()}
            >
              {changes === 0 ? 'Nothing to take in' : `Take in ${counted(changes, 'person', 'people')}`}
            </Button>
          </div>
        </div>
      )}
    </Panel>
  );
}
