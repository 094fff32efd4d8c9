/** Whose progress is looked at. */
export interface Looking {
  readonly course: string | null;
  readonly person: string | null;
  /** Another day than this one. */
  readonly day: string | null;
}

/** A path below the data routes of a course, with the day that is looked at. */
export const pathOf = ({ day }: Pick<Looking, 'day'>, ...parts: readonly string[]): string =>
  `courses/${parts.map(encodeURIComponent).join('/')}${day === null ? '' : `?day=${encodeURIComponent(day)}`}`;
