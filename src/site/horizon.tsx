/** The line under a site's head: only decoration, and each site has its own, drawn from what it is called. */

const WIDTH = 1200;
const HEIGHT = 36;
/** The heights between which it goes up and down, counted from the top. */
const [HIGHEST, LOWEST] = [5, 27];
const POINTS = 3;

/** The heights of a site's line, from left to right: the same for the same name. */
export function heightsOf(name: string): readonly number[] {
  // FNV-1a, 32 bits.
  let hash = 0x811c9dc5;
  for (const byte of new TextEncoder().encode(name)) hash = Math.imul(hash ^ byte, 0x01000193);
  return Array.from({ length: POINTS + 1 }, (_, at) => {
    hash = Math.imul(hash ^ (at + 1), 0x01000193);
    return HIGHEST + ((hash >>> 8) % (LOWEST - HIGHEST + 1));
  });
}

/** A curve through heights at equal steps that is level at each of them. */
export function curveThrough(heights: readonly number[]): string {
  const step = WIDTH / (heights.length - 1);
  const [first = HEIGHT, ...others] = heights;
  let before = first;
  const curves = others.map((height, at) => {
    const [from, to] = [Math.round(at * step), Math.round((at + 1) * step)];
    const half = Math.round((from + to) / 2);
    const curve = `C${half} ${before} ${half} ${height} ${to} ${height}`;
    before = height;
    return curve;
  });
  return `M0 ${HEIGHT}V${first}${curves.join('')}V${HEIGHT}Z`;
}

export const Horizon = ({ name }: { readonly name: string }) => (
  <svg
    className="-mb-px block h-6 w-full sm:h-9"
    viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
    preserveAspectRatio="none"
    aria-hidden="true"
  >
    <path d={curveThrough(heightsOf(name))} className="horizon" />
  </svg>
);
