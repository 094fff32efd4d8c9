/** What has become of an expectation, as a sentence. */

import { capital, counted } from '../english';
import { type CompiledPolicy, decide } from '../policy';
import { describeDecision } from '../sentence/decision';
import { describeWitness } from '../sentence/witness';
import { type Day, itemAt } from '../site';
import type { Verdict } from './verdicts';

/** "Broken: a member in Suspended can open Observers’ room." */
export function describeVerdict(verdict: Verdict, compiled: CompiledPolicy, today: Day): string {
  switch (verdict.kind) {
    case 'holds':
      return verdict.aboutNobody
        ? 'True of nobody: no visitor there could be is meant.'
        : verdict.items === 0
          ? 'True of nothing: no item is like that now.'
          : `Proved at ${counted(verdict.items, 'item')}, for every visitor there could be.`;
    case 'broken': {
      const { visitor, request, item: id } = verdict.witness;
      const { outline, vocabulary } = compiled;
      const item = itemAt(outline, id);
      const who = capital(describeWitness(visitor, request, vocabulary, today));
      const said = item && describeDecision(decide(compiled, id, visitor, request), who, item, outline);
      const more = verdict.items.length - 1;
      return `${said ?? who}${more > 0 ? `, and so at ${counted(more, 'other item', 'other items')}` : ''}.`;
    }
    case 'gone':
      return 'It names something that is no longer there, so it can’t be shown. Change it or take it out.';
    case 'not decided':
      return `It could not be worked out. ${verdict.why}`;
    default:
      return verdict satisfies never;
  }
}
