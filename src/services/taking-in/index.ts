/** Taking in what is there: folders of Markdown and HTML, and sites on the web. */

export type { TakingReport } from './report';
export { sendFolder } from './send-folder';
export { takeBackIn } from './take-back';
export {
  latestTakings,
  type TakingAnswer,
  type TakingProgress,
  takeIn,
} from './take-in';
