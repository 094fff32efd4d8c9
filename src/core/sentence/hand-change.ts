import { dayInWords, type HandChange, nameOfId, type Vocabulary } from '../site';

/** What is given to somebody by hand, or taken: "Into Dome crew". */
export function describeHandChange(change: HandChange, vocabulary: Vocabulary): string {
  switch (change.kind) {
    case 'join':
      return `Into ${nameOfId(vocabulary, 'group', change.group)}`;
    case 'leave':
      return `Out of ${nameOfId(vocabulary, 'group', change.group)}`;
    case 'give':
      return `Made ${nameOfId(vocabulary, 'role', change.role)}`;
    case 'take':
      return `No longer ${nameOfId(vocabulary, 'role', change.role)}`;
    case 'level':
      return `To ${change.level === null ? 'no level' : nameOfId(vocabulary, 'level', change.level)}`;
    case 'enrol': {
      const until = change.until === null ? '' : ` until ${dayInWords(change.until)}`;
      return `Enrolled in ${nameOfId(vocabulary, 'course', change.course)}${until}`;
    }
    case 'end enrolment':
      return `No longer enrolled in ${nameOfId(vocabulary, 'course', change.course)}`;
    default:
      return change satisfies never;
  }
}
