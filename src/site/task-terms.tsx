/** What can be handed in, in a line. */
import type { TaskOutline } from '@/services';
import { say } from './wording';

export function TaskTerms({ task: { text, files, kinds, megabytes } }: { readonly task: TaskOutline }) {
  const { handIn: words, all } = say();
  const some = words.files(files);
  const terms = [
    text ? words.text : null,
    files === 0 ? null : text ? words.upTo(some) : some,
    files > 0 ? all(kinds.map((kind) => words.kinds[kind])) : null,
    files > 0 ? words.each(megabytes) : null,
    words.byTutor,
  ];
  return <p className="quiz-terms">{terms.filter((one) => one !== null).join(' · ')}</p>;
}
