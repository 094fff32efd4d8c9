import { say } from './wording';

/** "300 kB", "1.5 MB": how large a file is, in steps of a thousand. */
export const sizeInWords = (bytes: number): string =>
  bytes < 1_000_000
    ? `${Math.max(1, Math.round(bytes / 1000))} kB`
    : `${say().decimal(bytes / 1_000_000, 1)} MB`;
