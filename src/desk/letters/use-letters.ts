/** The letters of the site, and what of them is being written; what is not kept yet stays, wherever at the desk one goes. */
import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { type LetterKind, type LetterTemplate, same } from '@/core';
import type { SiteLetter } from '@/services';
import { type Answer, ask } from '../service';

interface Letters {
  readonly site: string;
  readonly letters: readonly SiteLetter[];
}

/** A letter as it is being written, with what is wrong with it. */
export interface Writing {
  readonly letter: LetterTemplate;
  /** What it said when somebody began to change it. */
  readonly was: LetterTemplate;
  readonly problems: Readonly<Record<string, string>>;
  /** What somebody else made of it meanwhile. */
  readonly theirs: LetterTemplate | null;
}

type Written = Partial<Readonly<Record<LetterKind, Writing>>>;

// Outlives the screen.
let left: Written = {};

const isUnkept = ({ letter, was }: Writing): boolean => !same(letter, was);

// Leaving the desk with something that is not kept is asked about, from whichever screen.
if (typeof window !== 'undefined')
  window.addEventListener('beforeunload', (event) => {
    if (Object.values(left).some(isUnkept)) event.preventDefault();
  });

export function useLetters() {
  const [answer, setAnswer] = useState<Answer<Letters> | null>(null);
  const [written, setWritten] = useState(left);
  useEffect(() => {
    left = written;
  }, [written]);
  const read = useCallback(() => ask<Letters>('GET', 'letters').then(setAnswer), []);
  useEffect(() => void read(), [read]);
  const letters = answer?.ok ? answer.value.letters : [];

  const writingOf = (kind: LetterKind): Writing | null => {
    const there = letters.find((one) => one.kind === kind);
    if (!there) return null;
    return written[kind] ?? { letter: there.letter, was: there.letter, problems: {}, theirs: null };
  };
  const change = (kind: LetterKind, over: Partial<Writing>) =>
    setWritten((before) => {
      const one = before[kind] ?? writingOf(kind);
      return one ? { ...before, [kind]: { ...one, ...over } } : before;
    });

  /** Sends a letter to be kept, or as a sample; what is wrong with it stands at it. */
  const send = async (method: 'PUT' | 'POST', kind: LetterKind, body: object, said: string) => {
    const answered = await ask(method, 'letters', { kind, ...body });
    if (answered.ok) {
      toast.success(said);
      return true;
    }
    const { problems = { form: answered.title }, theirs = null } = answered.body as Partial<Writing>;
    change(kind, { problems: theirs === null ? problems : {}, theirs });
    return false;
  };

  return {
    answer,
    letters,
    writingOf,
    isUnkept: (kind: LetterKind) => {
      const one = written[kind];
      return one !== undefined && isUnkept(one);
    },
    write: (kind: LetterKind, letter: LetterTemplate) => change(kind, { letter, problems: {} }),
    /** Goes on with what somebody else wrote, or puts what is here on top of it. */
    settle: (kind: LetterKind, takes: 'mine' | 'theirs') => {
      const theirs = written[kind]?.theirs;
      if (theirs) change(kind, { was: theirs, theirs: null, ...(takes === 'theirs' && { letter: theirs }) });
    },
    keep: async (kind: LetterKind, letter: LetterTemplate | null) => {
      const was = writingOf(kind)?.was;
      const said = letter === null ? 'It says again what Trivet says.' : 'The letter is kept.';
      if (!(await send('PUT', kind, { letter, was }, said))) return;
      await read();
      setWritten(({ [kind]: _, ...others }) => others);
    },
    sample: (kind: LetterKind, letter: LetterTemplate) =>
      send('POST', kind, { letter }, 'It is in the outbox, to your own mail address.'),
  };
}
