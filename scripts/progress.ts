/** How far something is, on one line of a terminal; nothing where nobody looks. */
export function progress(what: string, size: number): (bytes: number) => void {
  if (!process.stderr.isTTY) return () => undefined;
  let said = 0;
  return (bytes) => {
    if (Date.now() - said < 200 && bytes < size) return;
    said = Date.now();
    const part = size > 0 ? `${Math.min(99, Math.floor((bytes / size) * 100))} %, ` : '';
    process.stderr.write(`\r  ${what}: ${part}${Math.ceil(bytes / 1e6)} MB   `);
  };
}
