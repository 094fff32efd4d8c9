'use client';
/** What each kind of letter says: a list by what they are about, the one that is open, and how it arrives. */
import { LETTER_GROUPS, LETTER_KINDS, LETTERS, type LetterKind, permits, same } from '@/core';
import { useDesk } from '../context';
import { LetterEditor } from './letter-editor';
import { LetterPreview } from './letter-preview';
import { useLetters } from './use-letters';

export function LettersScreen({ letter }: { readonly letter: string }) {
  const { data } = useDesk();
  if (!permits(data.desk, 'everything'))
    return <main className="flex-1 px-8 py-6">Letters are for owners of the site.</main>;
  return <Letters open={LETTER_KINDS.find((kind) => kind === letter) ?? LETTER_KINDS[0]} />;
}

function Letters({ open }: { readonly open: LetterKind }) {
  const { setScreen } = useDesk();
  const { answer, letters, writingOf, isUnkept, write, settle, keep, sample } = useLetters();
  const there = letters.find(({ kind }) => kind === open);
  const writing = writingOf(open);
  return (
    <main className="grid min-h-0 flex-1 grid-cols-[14.5rem_minmax(0,1fr)_minmax(0,25rem)]">
      <nav aria-label="Letters" className="min-h-0 overflow-y-auto border-iron border-r px-4 py-5">
        <h2 className="text-2xl">Letters</h2>
        <p className="note mt-1">
          What Trivet writes to people by itself.{' '}
          <button
            type="button"
            className="text-copper hover:underline"
            onClick={() => setScreen({ kind: 'outbox' })}
          >
            What went out
          </button>
        </p>
        {LETTER_GROUPS.map((group) => (
          <section key={group} className="mt-4">
            <h3 className="font-head text-base">{group}</h3>
            <ul className="-mx-2 mt-1">
              {letters
                .filter(({ kind }) => LETTERS[kind].of === group)
                .map(({ kind, letter, ours }) => (
                  <li key={kind}>
                    <button
                      type="button"
                      aria-current={kind === open}
                      onClick={() => setScreen({ kind: 'letters', letter: kind })}
                      className="w-full rounded-[3px] px-2 py-1 text-left leading-tight hover:bg-sunk aria-[current=true]:bg-wash"
                    >
                      {LETTERS[kind].name}
                      {isUnkept(kind) ? (
                        <span className="block text-alarm text-xs">not kept yet</span>
                      ) : (
                        !same(letter, ours) && <span className="note block text-xs">in your own words</span>
                      )}
                    </button>
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </nav>
      {answer && !answer.ok && (
        <p role="alert" className="px-6 py-5 text-alarm">
          {answer.title}
        </p>
      )}
      {answer?.ok && there && writing && (
        <>
          <LetterEditor
            key={open}
            kind={open}
            writing={writing}
            isOurs={same(there.letter, there.ours) && same(writing.letter, there.ours)}
            onWrite={(one) => write(open, one)}
            onKeep={() => void keep(open, writing.letter)}
            onBack={() => void keep(open, null)}
            onSample={() => void sample(open, writing.letter)}
            onSettle={(takes) => settle(open, takes)}
          />
          <LetterPreview kind={open} letter={writing.letter} site={answer.value.site} />
        </>
      )}
    </main>
  );
}
