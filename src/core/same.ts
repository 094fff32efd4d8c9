/** Whether two plain values (records, lists, texts, numbers, null) are equal, whatever order their keys stand in. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const left = Object.entries(a);
  return (
    left.length === Object.keys(b).length &&
    left.every(([key, value]) => key in b && same(value, b[key as keyof typeof b]))
  );
}
