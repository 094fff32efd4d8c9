/** What the desk needs as a whole, and what only owners see. */
export { editSettings, type OpenSettings, openSettings } from './edit-settings';
export { type HandbookPage, handbook, handbookPicture } from './handbook';
export { type DeskData, readDesk } from './read-desk';
