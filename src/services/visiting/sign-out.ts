import { deleteSession } from '@/store';
import type { Trivet, Visitor } from '../running';

/** Ends the visitor's session, and with it every walk that was started in it. */
export async function signOut(trivet: Trivet, visitor: Visitor): Promise<void> {
  if (!visitor.session) return;
  await deleteSession(trivet.db, visitor.session);
  // After that: whoever read it a moment ago has remembered it.
  trivet.forgetSession(visitor.session);
}
