/** A worker's own side of the window; typed here, because the rest of the desk is typed for pages. */
interface WorkerSide<Question, Answer> {
  onmessage: ((event: MessageEvent<Question>) => void) | null;
  readonly postMessage: (answer: Answer, transfer: readonly ArrayBufferLike[]) => void;
}

/** Whether this runs in a worker rather than on a page, or in a test. */
const inWorker = typeof document === 'undefined' && typeof self !== 'undefined';

/** In a worker, answers what is asked of it, one question after the other. `handedOver` are the buffers that go with an answer. */
export function answering<Question, Answer>(
  answer: (question: Question) => Answer,
  handedOver: (answer: Answer) => readonly ArrayBufferLike[] = () => [],
): void {
  if (!inWorker) return;
  const side = self as unknown as WorkerSide<Question, Answer>;
  side.onmessage = ({ data }) => {
    const made = answer(data);
    side.postMessage(made, handedOver(made));
  };
}
