/** Writing: pages and posts with their sections, menus, files. */
export { SiteScreen } from './site-screen';
