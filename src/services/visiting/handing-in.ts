/** Handing in: what a learner writes and uploads for a tutor to look at. Every version is kept. */
import { randomUUID } from 'node:crypto';
import {
  type Activity,
  asId,
  decide,
  type HandInTerms,
  type ItemId,
  isHandedIn,
  LONGEST_HAND_IN,
  type Messages,
  mayHandIn,
  type RequestFacts,
} from '@/core';
import {
  handedBytesOf,
  hasCompleted,
  insertHandIn,
  readHandedFile,
  readHandedFiles,
  readHandIns,
} from '@/store';
import { readFile } from '../forms';
import { messagesOf, type Person, type SiteState, type Trivet, type Visitor } from '../running';
import { type HandInView, handInView, opens, taskIn, type View, type ViewContext } from '../view';
import { countTry, MINUTE } from './limits';

/** A file as it was sent. */
export interface SentFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

export interface Sent {
  readonly text: string;
  readonly files: readonly SentFile[];
}

/** The most that everything may be that somebody ever handed in, in bytes. */
const MOST_BYTES_EACH = 200_000_000;
const MOST_AN_HOUR = 30;

/** Somebody at a hand-in that is open to them. */
interface Working {
  readonly trivet: Trivet;
  readonly person: Person;
  readonly activity: Activity;
  readonly task: HandInTerms;
}

function workingOn(
  trivet: Trivet,
  { person, facts }: Visitor,
  id: string,
  request: RequestFacts,
): Working | null {
  const { state } = trivet;
  const found = handInAt(state, id);
  return person && found && decide(state.live.compiled, found.activity.id, facts, request).kind === 'open'
    ? { trivet, person, ...found }
    : null;
}

/** The hand-in with this id, whoever may hand something in. */
export function handInAt(
  state: SiteState,
  id: string,
): { readonly activity: Activity; readonly task: HandInTerms } | null {
  const activity = state.outline.items.get(asId<ItemId>(id));
  return activity?.kind === 'activity' && activity.activity === 'hand-in'
    ? { activity, task: taskIn(state, activity.id) }
    : null;
}

/** The most that can be sent to a hand-in at once, in bytes, with what a form has around it. */
export const mostSent = ({ files, megabytes }: HandInTerms): number =>
  files * megabytes * 1_000_000 + LONGEST_HAND_IN * 4 + 20_000;

/** A hand-in with what this visitor handed in; null where none is open to them. `draft` is what they wrote last. */
export async function handInFor(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  view: View,
  request: RequestFacts,
  draft: string | null = null,
): Promise<HandInView | null> {
  const working = workingOn(trivet, visitor, id, request);
  if (!working) return null;
  const versions = await readHandIns(trivet.db, working.person.id, [working.activity.id]);
  const files = await readHandedFiles(trivet.db, versions);
  return handInView(view, working.activity, working.task, versions, files, draft);
}

/** The same on a walk, on which nobody's work is looked at. */
export function handInOnWalk(context: ViewContext, id: string): HandInView | null {
  const found = context.facts.signedIn ? handInAt(context.state, id) : null;
  return found && opens(context, found.activity.id)
    ? handInView(context, found.activity, found.task, [], [], null)
    : null;
}

export type HandInAnswer =
  | { readonly kind: 'handed in' }
  | { readonly kind: 'wrong'; readonly problem: string }
  | { readonly kind: 'closed' };

const wrong = (problem: string): HandInAnswer => ({ kind: 'wrong', problem });

/** Takes what somebody hands in, whole or not at all. Whether it is open to them is decided as it is written. */
export async function handIn(
  trivet: Trivet,
  visitor: Visitor,
  id: string,
  { text, files }: Sent,
  request: RequestFacts,
  now: Date,
): Promise<HandInAnswer> {
  const before = workingOn(trivet, visitor, id, request);
  if (!before) return { kind: 'closed' };
  const { person, activity } = before;
  const tooOften = await countTry(
    trivet,
    [{ key: `hand in ${person.id}`, most: MOST_AN_HOUR, within: 60 * MINUTE }],
    now,
  );
  if (tooOften) return wrong(tooOften.message);
  const messages = messagesOf(trivet.state);
  const { handIn: words } = messages;
  const read = await readSent(before.task, text, files, messages);
  if ('problem' in read) return wrong(read.problem);
  const bytes = read.files.reduce((sum, one) => sum + one.size, 0);
  if (bytes + (await handedBytesOf(trivet.db, person.id)) > MOST_BYTES_EACH)
    return wrong(words.allTooLarge(MOST_BYTES_EACH / 1_000_000));
  // What was open while the files were read may be closed by now.
  if (!workingOn(trivet, visitor, id, request)) return { kind: 'closed' };
  return trivet.db.transaction(async (tx): Promise<HandInAnswer> => {
    const versions = await readHandIns(tx, person.id, [activity.id]);
    // As it is written: a tutor may be accepting it at this moment.
    const turn = mayHandIn(await hasCompleted(tx, person.id, activity.id), versions.length);
    if (turn !== 'may') return wrong(turn === 'done' ? words.doneAlready : words.tooOften);
    const made = {
      id: randomUUID(),
      person: person.id,
      activity: activity.id,
      version: (versions.at(-1)?.version ?? 0) + 1,
      text: read.text,
      at: now,
      state: 'waiting' as const,
      score: null,
      words: '',
      by: '',
      judged: null,
    };
    return (await insertHandIn(tx, made, read.files)) ? { kind: 'handed in' } : wrong(words.elsewhere);
  });
}

type FileRead = Parameters<typeof insertHandIn>[2][number];

/** What was sent, read by what it is and not by what it is called. */
async function readSent(
  task: HandInTerms,
  given: string,
  sent: readonly SentFile[],
  messages: Messages,
): Promise<{ readonly text: string; readonly files: readonly FileRead[] } | { readonly problem: string }> {
  const { handIn: words, number, all } = messages;
  const text = given.replace(/\r\n/g, '\n').trim();
  if (text.length > LONGEST_HAND_IN) return { problem: words.longText(number(LONGEST_HAND_IN)) };
  if (text !== '' && !task.text) return { problem: words.noText };
  if (sent.length > task.files)
    return { problem: task.files === 0 ? words.noFiles : words.tooMany(task.files) };
  if (text === '' && sent.length === 0) return { problem: task.text ? words.nothing : words.noFile };
  const files: FileRead[] = [];
  for (const { name, bytes } of sent) {
    const called = name.slice(0, 100);
    if (bytes.length > task.megabytes * 1_000_000)
      return { problem: words.largeFile(called, task.megabytes) };
    const read = await readFile(bytes, name, messages);
    if ('problem' in read) return { problem: words.badFile(called, read.problem) };
    if (!isHandedIn(task, read.mediaType))
      return { problem: words.otherKind(called, all(task.kinds.map((kind) => words.kinds[kind]))) };
    files.push({
      id: randomUUID(),
      name: read.name,
      mediaType: read.mediaType,
      size: read.bytes.length,
      bytes: read.bytes,
    });
  }
  return { text, files };
}

/** A file that this visitor handed in; null where they did not. */
export async function ownHandedFile(trivet: Trivet, { person }: Visitor, activity: string, id: string) {
  const file = person ? await readHandedFile(trivet.db, id) : null;
  return file && file.person === person?.id && file.activity === activity ? file : null;
}
