/** A site as one file: out, in, checked. */
export { exportSite, type PeopleInFile, siteAsFile } from './export-site';
export { expectationsInFile, expectationsOfSite } from './file-expectations';
export { importSite } from './import-site';
export * as parts from './parts';
export { readSiteFile, type SiteInFile } from './read-site-file';
export { fileOverSite, type ImportAnswer, type ImportReport, replaceSite } from './replace-site';
export { FORMAT, type ItemInFile, LARGEST_SITE_FILE, type SiteFile } from './site-file-form';
export { siteFileSchema } from './site-file-schema';
