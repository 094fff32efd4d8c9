import { vacuumWorst } from '@/store';
import type { Trivet } from './trivet';

/** Makes room in the tables of the embedded database, which has nobody else to do so; a server looks after its own. */
export async function tendTables(trivet: Trivet): Promise<void> {
  if (!trivet.currency) await vacuumWorst(trivet.db);
}
