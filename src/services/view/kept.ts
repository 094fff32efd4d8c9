/**
 * What was made, kept by what was asked to make it. A document depends on its visitor only through the answers it asked for;
 * so for each address there is a tree of questions with a branch for every answer, and at its ends what was made. Whoever
 * gives the same answers finds the same document, without its being made again, and nobody else finds it.
 */
import { LRUCache } from 'lru-cache';
import type { CompiledPolicy } from '@/core';
import type { Question, View } from './context';

/** A question that was asked, and what was answered. */
export interface Asked {
  /** Equal for equal questions, and for no others. */
  readonly about: unknown;
  readonly question: Question<unknown>;
  readonly answer: unknown;
}

interface Branch<Value> {
  readonly about: unknown;
  readonly question: Question<unknown>;
  readonly next: Map<unknown, Branch<Value> | Leaf<Value>>;
}

interface Leaf<Value> {
  readonly value: Value;
}

/** What a question takes of memory, with its branch. */
const QUESTION_BYTES = 300;

export class Kept<Value> {
  /** What everything is kept for: a policy over a site, compiled. Of another nothing is found. */
  #scope: CompiledPolicy | null = null;
  readonly #roots = new Map<string, Branch<Value> | Leaf<Value>>();
  /** The ends, by how much of memory each takes; those nobody asked for lately go first, with the branches to them. */
  readonly #leaves: LRUCache<Leaf<Value>, { readonly root: string; readonly trail: readonly Asked[] }> | null;

  /** With at most so many bytes, by their own account; none keeps nothing. */
  constructor(
    bytes: number,
    private readonly sizeOf: (value: Value) => number,
  ) {
    this.#leaves =
      bytes > 0
        ? new LRUCache({
            maxSize: bytes,
            dispose: ({ root, trail }, leaf) => this.#prune(root, trail, leaf),
          })
        : null;
  }

  /** How many bytes are kept. */
  get bytes(): number {
    return this.#leaves?.calculatedSize ?? 0;
  }

  /** What was made for somebody who gave the same answers. */
  find(root: string, view: Pick<View, 'compiled' | 'ask'>): Value | null {
    if (view.compiled !== this.#scope) return null;
    let at = this.#roots.get(root);
    while (at !== undefined && 'question' in at) at = at.next.get(view.ask(at.about, at.question));
    if (at === undefined) return null;
    this.#leaves?.get(at);
    return at.value;
  }

  /**
   * Keeps what was made under a policy over a site, with everything that was asked on the way, in order. What was kept under
   * another goes.
   */
  keep(scope: CompiledPolicy, root: string, trail: readonly Asked[], value: Value): void {
    if (this.#leaves === null) return;
    if (scope !== this.#scope) {
      this.#leaves.clear();
      this.#roots.clear();
      this.#scope = scope;
    }
    const leaf: Leaf<Value> = { value };
    const size = this.sizeOf(value) + (trail.length + 1) * QUESTION_BYTES;
    if (size > this.#leaves.maxSize || !this.#grow(root, trail, leaf)) return;
    this.#leaves.set(leaf, { root, trail }, { size });
  }

  /** Puts an end where the answers lead to; false where it was put by somebody else meanwhile. */
  #grow(root: string, trail: readonly Asked[], leaf: Leaf<Value>): boolean {
    let put: (node: Branch<Value> | Leaf<Value>) => void = (node) => this.#roots.set(root, node);
    let at = this.#roots.get(root);
    for (const { about, question, answer } of trail) {
      // The same answers lead to the same question. Where they don't, nothing is kept.
      if (at !== undefined && !('question' in at && at.about === about)) return false;
      const branch = at ?? { about, question, next: new Map() };
      if (at === undefined) put(branch);
      put = (node) => branch.next.set(answer, node);
      at = branch.next.get(answer);
    }
    if (at !== undefined) return false;
    put(leaf);
    return true;
  }

  /** Takes an end away, and every branch that led to nothing else. */
  #prune(root: string, trail: readonly Asked[], leaf: Leaf<Value>): void {
    const branches: Branch<Value>[] = [];
    let at = this.#roots.get(root);
    for (const { answer } of trail) {
      if (at === undefined || !('question' in at)) return;
      branches.push(at);
      at = at.next.get(answer);
    }
    if (at !== leaf) return;
    for (let depth = branches.length - 1; depth >= 0; depth--) {
      const { next } = branches[depth] as Branch<Value>;
      next.delete(trail[depth]?.answer);
      if (next.size > 0) return;
    }
    this.#roots.delete(root);
  }
}
