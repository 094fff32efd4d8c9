/** What was changed, by whom, when and why. */
export { HistoryScreen } from './history-screen';
export { PastChanges } from './past-changes';
