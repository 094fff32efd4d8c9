/** Whether what was found, or what is broken, shows in what one visitor gets now. */
import { conditionCompiler } from '../condition';
import { allows, type Expectation } from '../expectation';
import type { ItemId } from '../ids';
import { type CompiledPolicy, decide, outcomeOf } from '../policy';
import { isEnrolledOn, isOpenable, levelAt, type RequestFacts, type VisitorFacts } from '../site';
import type { Finding } from './finding';
import { astrayFrom } from './leading';
import type { Verdict } from './verdicts';

interface Someone {
  readonly visitor: VisitorFacts;
  readonly request: RequestFacts;
}

/** Whether a finding concerns somebody: they are turned away by it, sent on, let in, or can't go on. */
export function concerns(finding: Finding, compiled: CompiledPolicy, { visitor, request }: Someone): boolean {
  const { outline, vocabulary, covering } = compiled;
  const at = (item: ItemId) => decide(compiled, item, visitor, request);
  const opens = (item: ItemId) => at(item).kind === 'open';
  const isLearnerOf = (course: ItemId) =>
    visitor.enrolments?.some((one) => one.course === course && isEnrolledOn(one, request.today)) ?? false;
  switch (finding.kind) {
    case 'contradiction':
      return finding.items.some((item) => !opens(item));
    case 'hidden link':
      return opens(finding.page) && !opens(finding.link);
    case 'led astray': {
      const astray = astrayFrom({ visitor, request }, finding.from, { compiled });
      return astray?.at === finding.at && astray.how === finding.how;
    }
    case 'step to a closed door': {
      const decision = at(finding.from);
      const because = decision.kind === 'turned away' ? decision.because : null;
      return because?.kind === 'gate' && because.gate === finding.gate && !opens(finding.to);
    }
    case 'opened by instead': {
      const holds = conditionCompiler(vocabulary);
      const item = outline.items.get(finding.item) ?? null;
      const aside = (covering.get(finding.item) ?? []).filter(({ setAside }) => setAside);
      return opens(finding.item) && !aside.some(({ gate }) => holds(gate.who)(visitor, item, request));
    }
    case 'left open': {
      const gate = compiled.policy.gates.find(({ id }) => id === finding.gate);
      const meets = gate && conditionCompiler(vocabulary)(gate.who);
      return finding.items.some(
        (id) => opens(id) && meets?.(visitor, outline.items.get(id) ?? null, request) === false,
      );
    }
    case 'exact level': {
      const rank = (level: unknown) => vocabulary.levels.findIndex(({ id }) => id === level);
      const own = levelAt(visitor, request.today, vocabulary.levels);
      return !opens(finding.item) && own !== null && rank(own) >= rank(finding.witness.visitor.level);
    }
    case 'gets nothing':
      return ![...outline.items.values()].some((item) => isOpenable(item) && opens(item.id));
    case 'never completed':
      return isLearnerOf(finding.course);
    case 'never past':
      return isLearnerOf(finding.course) && !opens(finding.item) && !opens(finding.next);
    default:
      return false;
  }
}

/** Whether somebody gets what is not expected, where an expectation is broken. */
export function breaksFor(
  { who, claim }: Expectation,
  verdict: Verdict,
  compiled: CompiledPolicy,
  { visitor, request }: Someone,
): boolean {
  if (verdict.kind !== 'broken') return false;
  const holds = conditionCompiler(compiled.vocabulary)(who);
  return verdict.items.some((id) => {
    const isMeant = holds(visitor, compiled.outline.items.get(id) ?? null, request);
    if (isMeant === (claim.kind === 'only opens')) return false;
    return !allows(claim, outcomeOf(decide(compiled, id, visitor, request)));
  });
}
