/** The legs of a policy's gates as sentences, worked out once for as long as the policy stands. */
import { type CompiledPolicy, describeGate, type Gate } from '@/core';

type Legs = ReturnType<typeof describeGate>;

const said = new WeakMap<CompiledPolicy, Map<Gate, Legs>>();

/** A gate of a compiled policy, leg by leg. */
export function legsOf(gate: Gate, compiled: CompiledPolicy): Legs {
  const { policy, outline, vocabulary } = compiled;
  const known = said.get(compiled) ?? new Map<Gate, Legs>();
  said.set(compiled, known);
  const legs = known.get(gate) ?? describeGate(gate, outline, vocabulary, policy.turnAways);
  known.set(gate, legs);
  return legs;
}
