/** Attempts at quizzes. */
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { type Answer, type Asked, asId, type ItemId, type PersonId } from '@/core';
import type { Database } from './database';
import { quizAttempts } from './schema';

export interface QuizAttempt {
  readonly id: string;
  readonly person: PersonId;
  readonly activity: ItemId;
  readonly number: number;
  readonly asked: readonly Asked[];
  readonly answers: readonly Answer[];
  readonly passMark: number;
  readonly begun: Date;
  readonly until: Date | null;
  readonly finished: Date | null;
  readonly score: number | null;
}

/** How an attempt went; the score and when it was finished are null while it is under way. */
export type QuizResult = Pick<QuizAttempt, 'id' | 'number' | 'passMark' | 'until' | 'finished' | 'score'>;

/** Begins an attempt; false when there is one with this number, or one under way, whoever began it. */
export async function insertQuizAttempt(db: Database, attempt: QuizAttempt): Promise<boolean> {
  const rows = await db
    .insert(quizAttempts)
    .values(attempt)
    .onConflictDoNothing()
    .returning({ id: quizAttempts.id });
  return rows.length > 0;
}

/** Somebody's attempts at some quizzes, the first of each first; only those under way, if that is said. */
export async function readQuizAttempts(
  db: Database,
  person: PersonId,
  activities: readonly ItemId[],
  underWay = false,
): Promise<readonly QuizAttempt[]> {
  if (activities.length === 0) return [];
  const rows = await db
    .select()
    .from(quizAttempts)
    .where(
      and(
        eq(quizAttempts.person, person),
        inArray(quizAttempts.activity, [...activities]),
        underWay ? isNull(quizAttempts.finished) : undefined,
      ),
    )
    .orderBy(asc(quizAttempts.number));
  return rows.map((row) => ({
    ...row,
    person: asId<PersonId>(row.person),
    activity: asId<ItemId>(row.activity),
  }));
}

/** How somebody's attempts at a quiz went, the first of them first, without what was asked and answered. */
export async function readQuizResults(
  db: Database,
  person: PersonId,
  activity: ItemId,
): Promise<readonly QuizResult[]> {
  const { id, number, passMark, until, finished, score } = quizAttempts;
  return db
    .select({ id, number, passMark, until, finished, score })
    .from(quizAttempts)
    .where(and(eq(quizAttempts.person, person), eq(quizAttempts.activity, activity)))
    .orderBy(asc(quizAttempts.number));
}

/** Who has begun which of these quizzes, handed in or not. */
export async function readQuizzesBegun(
  db: Database,
  activities: readonly ItemId[],
): Promise<readonly { readonly person: PersonId; readonly activity: ItemId }[]> {
  if (activities.length === 0) return [];
  const rows = await db
    .selectDistinct({ person: quizAttempts.person, activity: quizAttempts.activity })
    .from(quizAttempts)
    .where(inArray(quizAttempts.activity, [...activities]));
  return rows.map(({ person, activity }) => ({
    person: asId<PersonId>(person),
    activity: asId<ItemId>(activity),
  }));
}

/** Keeps what was filled in so far; false when the attempt is handed in already. */
export async function keepQuizAnswers(
  db: Database,
  id: string,
  answers: readonly Answer[],
): Promise<boolean> {
  const rows = await db
    .update(quizAttempts)
    .set({ answers })
    .where(and(eq(quizAttempts.id, id), isNull(quizAttempts.finished)))
    .returning({ id: quizAttempts.id });
  return rows.length > 0;
}

/** Notes how an attempt went; false when that was noted before. */
export async function finishQuizAttempt(
  db: Database,
  { id, answers, score, finished }: Pick<QuizAttempt, 'id' | 'answers' | 'score' | 'finished'>,
): Promise<boolean> {
  const rows = await db
    .update(quizAttempts)
    .set({ answers, score, finished })
    .where(and(eq(quizAttempts.id, id), isNull(quizAttempts.finished)))
    .returning({ id: quizAttempts.id });
  return rows.length > 0;
}
