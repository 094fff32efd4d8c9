/** What has to be done so that a test holds, or fails, as something one can be asked to do: "join Dome crew". */
import type { Test } from '../condition';
import { indefinite } from '../english';
import { type NameKind, nameOfId, type Vocabulary } from '../site';
import { asNoun, clauseOf, pronounOf } from './test';
import { thingInSentence } from './words';

export function imperativeOf(test: Test, vocabulary: Vocabulary, holds: boolean): string {
  const of = (kind: NameKind) => thingInSentence(vocabulary, kind, test.subject ?? '');
  const value = (kind: NameKind) => thingInSentence(vocabulary, kind, String(test.value));
  switch (test.fact) {
    case 'role': {
      const name = nameOfId(vocabulary, 'role', String(test.value));
      if (name === null || asNoun(name) === null)
        return `${holds ? 'be given' : 'lose'} the role ${value('role')}`;
      return holds ? `become ${indefinite(name)}` : `no longer be ${indefinite(name)}`;
    }
    case 'group':
      return `${holds ? 'join' : 'leave'} ${value('group')}`;
    case 'owns':
    case 'ever owned':
      return holds ? `buy ${of('product')}` : `no longer own ${of('product')}`;
    case 'subscribed':
      return holds ? `subscribe to ${of('product')}` : `end the subscription to ${of('product')}`;
    case 'refunded':
      return holds ? `be refunded ${of('product')}` : `not be refunded ${of('product')}`;
    case 'enrolled':
      return holds ? `enrol in ${of('course')}` : `leave ${of('course')}`;
    case 'completed':
      return holds ? `complete ${of('activity')}` : `not have completed ${of('activity')}`;
    case 'completed unit':
      return holds ? `complete the unit ${of('unit')}` : `not have completed the unit ${of('unit')}`;
    case 'completed course':
      return holds ? `complete the course ${of('course')}` : `not have completed the course ${of('course')}`;
    case 'passphrase':
      return holds
        ? `type the passphrase ${value('passphrase')}`
        : `not know the passphrase ${value('passphrase')}`;
    default: {
      const clause = clauseOf(test, vocabulary, holds);
      if (pronounOf(test, vocabulary, holds) === 'whose')
        return `have ${test.fact === 'score' ? 'a ' : ''}${clause.replace(/ is (?=not )/, ' ').replace(/ is /, ' ')}`;
      return clause.startsWith('have ') ? clause : `have ${clause}`;
    }
  }
}
