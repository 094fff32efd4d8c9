/** What a product gives, as the desk says it: with everything that is private. */
import { type Grants, listed, nameOfId, type Vocabulary } from '@/core';

export function grantsInWords({ level, roles, groups, enrolments }: Grants, vocabulary: Vocabulary): string {
  const name = (kind: 'level' | 'role' | 'group' | 'course', id: string) =>
    nameOfId(vocabulary, kind, id) ?? `a ${kind} that no longer exists`;
  return listed([
    ...(level === null ? [] : [`level ${name('level', level)}`]),
    ...roles.map((id) => `the role ${name('role', id)}`),
    ...groups.map((id) => `a place in ${name('group', id)}`),
    ...enrolments.map(
      ({ course, days }) => `the course ${name('course', course)}${days === null ? '' : ` for ${days} days`}`,
    ),
  ]);
}
