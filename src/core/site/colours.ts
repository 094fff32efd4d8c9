/**
 * The colours of a site: three of its own, everything else follows from them, within what stays readable (WCAG 2.2, success
 * criteria 1.4.3 and 1.4.11).
 */

/** Each as six digits in hex, "#14233b". */
export interface Colours {
  /** The band at the head, and buttons. */
  readonly head: string;
  /** What marks where one is. */
  readonly mark: string;
  /** Links. */
  readonly link: string;
}

/** What a site looks like that has chosen nothing. */
export const COLOURS: Colours = { head: '#14233b', mark: '#f1c572', link: '#1d5577' };

/** What texts stand on: the page, what is set apart on it, what was found by searching. */
const PAPERS = ['#f8fafb', '#eaf0f4', '#fbe7bf'] as const;
/** What can be written on a band. */
const INKS = ['#eef3f8', '#10171f'] as const;

const TEXT = 4.5;
const SHAPE = 3;

type Rgb = readonly [number, number, number];

const rgbOf = (colour: string): Rgb => {
  const value = Number.parseInt(colour.slice(1), 16);
  return [(value >> 16) & 255, (value >> 8) & 255, value & 255];
};

const hexOf = (rgb: Rgb): string =>
  `#${rgb.map((part) => Math.round(part).toString(16).padStart(2, '0')).join('')}`;

const mixed = (colour: string, other: string, share: number): string => {
  const [from, to] = [rgbOf(colour), rgbOf(other)];
  return hexOf(
    [0, 1, 2].map((at) => (from[at] ?? 0) * (1 - share) + (to[at] ?? 0) * share) as unknown as Rgb,
  );
};

/** Relative luminance (WCAG 2.2): 0 for black, 1 for white. */
export function luminanceOf(colour: string): number {
  const [red = 0, green = 0, blue = 0] = rgbOf(colour).map((part) => {
    const share = part / 255;
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue;
}

/** Contrast ratio (WCAG 2.2): from 1, for the same, to 21. */
export function contrastOf(one: string, other: string): number {
  const [darker = 0, lighter = 0] = [luminanceOf(one), luminanceOf(other)].sort((a, b) => a - b);
  return (lighter + 0.05) / (darker + 0.05);
}

/** The ink for a band: whichever of the two can be read better there. */
export const inkOn = (head: string): string =>
  contrastOf(INKS[0], head) >= contrastOf(INKS[1], head) ? INKS[0] : INKS[1];

/** The lighter end of the band, as far as its ink can be read there. */
export function highOf(head: string): string {
  const ink = inkOn(head);
  const [share] = [0.12, 0.08, 0.04, 0].filter((one) => contrastOf(mixed(head, '#ffffff', one), ink) >= TEXT);
  return share === undefined ? head : mixed(head, '#ffffff', share);
}

/** The darker end, for what lies above the band; its ink can be read there even better. */
const lowOf = (head: string): string =>
  inkOn(head) === INKS[0] ? mixed(head, '#000000', 0.42) : mixed(head, '#ffffff', 0.3);

export interface ColourProblem {
  readonly colour: keyof Colours;
  readonly message: string;
  /** The nearest one that would do; null where none would. */
  readonly instead: string | null;
}

const isColour = (text: string): boolean => /^#[0-9a-f]{6}$/i.test(text);

/** The nearest shade that will do, darker or lighter. */
function shadeOf(colour: string, does: (shade: string) => boolean): string | null {
  for (let share = 0.02; share <= 1.001; share += 0.02)
    for (const end of ['#000000', '#ffffff']) {
      const shade = mixed(colour, end, Math.min(1, share));
      if (does(shade)) return shade;
    }
  return null;
}

/** How well something can be told from whatever texts stand on. */
const onPaper = (colour: string): number => Math.min(...PAPERS.map((paper) => contrastOf(colour, paper)));

const inTenths = (contrast: number): string => (Math.floor(contrast * 10) / 10).toFixed(1);
const ratio = (one: string, other: string): string => inTenths(contrastOf(one, other));

/** What of some colours could not be read or seen. */
export function colourProblems(colours: Colours): readonly ColourProblem[] {
  const { head, mark, link } = colours;
  const wrong = (['head', 'mark', 'link'] as const).filter((one) => !isColour(colours[one]));
  if (wrong.length > 0)
    return wrong.map((colour) => ({
      colour,
      message: 'Write a colour with six digits, like #1d5577.',
      instead: null,
    }));
  const problems: ColourProblem[] = [];
  const headDoes = (one: string) => onPaper(one) >= SHAPE && contrastOf(one, inkOn(one)) >= TEXT;
  if (!headDoes(head))
    problems.push({
      colour: 'head',
      message:
        onPaper(head) < SHAPE
          ? `On the paper of the page it has a contrast of ${inTenths(onPaper(head))} to 1, and buttons need ${SHAPE} to be seen.`
          : `Words on it have a contrast of ${ratio(head, inkOn(head))} to 1, and need ${TEXT} to be read.`,
      instead: shadeOf(head, headDoes),
    });
  const markDoes = (one: string) => [head, highOf(head)].every((band) => contrastOf(one, band) >= TEXT);
  if (problems.length === 0 && !markDoes(mark))
    problems.push({
      colour: 'mark',
      message: `On the band it has a contrast of ${ratio(mark, highOf(head))} to 1, and needs ${TEXT} to be seen and written on.`,
      instead: shadeOf(mark, markDoes),
    });
  const linkDoes = (one: string) => onPaper(one) >= TEXT;
  if (!linkDoes(link))
    problems.push({
      colour: 'link',
      message: `On the paper of the page it has a contrast of ${inTenths(onPaper(link))} to 1, and links need ${TEXT} to be read.`,
      instead: shadeOf(link, linkDoes),
    });
  return problems;
}

/** What follows from the colour of the head: its lighter end, and the ink on it. */
export const bandOf = (head: string): { readonly high: string; readonly ink: string } => ({
  high: highOf(head),
  ink: inkOn(head),
});

/** Colours as a style sheet. */
export const styleOf = ({ head, mark, link }: Colours): string =>
  `:root{--night:${head};--night-high:${highOf(head)};--night-low:${lowOf(head)};--night-ink:${inkOn(head)};--lamp:${mark};--link:${link}}\n`;
