/** How far something is, on one line of a terminal; nothing where nobody looks. */
export function progress(
  what: string,
  size: number,
  written = (bytes: number) => `${Math.ceil(bytes / 1e6)} MB`,
): (done: number) => void {
  if (!process.stderr.isTTY) return () => undefined;
  let said = 0;
  return (done) => {
    if (Date.now() - said < 200 && done < size) return;
    said = Date.now();
    const part = size > 0 ? `${Math.min(99, Math.floor((done / size) * 100))} %, ` : '';
    process.stderr.write(`\r  ${what}: ${part}${written(done)}   `);
  };
}
