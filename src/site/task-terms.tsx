/** What can be handed in, in a line. */
import { counted, listed } from '@/core';
import type { TaskOutline } from '@/services';

export const TaskTerms = ({ task: { text, files, kinds, megabytes } }: { readonly task: TaskOutline }) => (
  <p className="quiz-terms">
    {[
      text ? 'a text' : null,
      files > 0 ? `${text ? 'up to ' : ''}${counted(files, 'file')}` : null,
      files > 0 ? listed(kinds) : null,
      files > 0 ? `${megabytes} MB each` : null,
      'looked at by a tutor',
    ]
      .filter((one) => one !== null)
      .join(' · ')}
  </p>
);
