import { deleteSession } from '@/store';
import type { Trivet, Visitor } from '../running';

/** Ends the visitor's session, and with it every walk that was started in it. */
export async function signOut(trivet: Trivet, visitor: Visitor): Promise<void> {
  if (!visitor.session) return;
  trivet.forgetSession(visitor.session);
  await deleteSession(trivet.db, visitor.session);
}
