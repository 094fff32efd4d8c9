/** What is set for the site as a whole. */
export { RulesPanel } from './rules-panel';
