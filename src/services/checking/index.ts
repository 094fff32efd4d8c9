/** Looking at the site with other people’s eyes: walks, reach, the journal. */
export { type ItemReach, itemReach } from './item-reach';
export { type JournalEntry, type JournalReport, journalReport, type Tally } from './journal-report';
export { type KindsReport, kindsReport, type PeopledKind } from './kinds';
export { type PersonAtItem, type PersonReport, personReport } from './person-reach';
export { type ChangeAhead, type SiteAhead, siteAhead } from './site-ahead';
export { startWalk, type WalkUnderWay, walkOf } from './walk';
export { type WalkReport, type Withheld, walkReport } from './walk-report';
export { wouldDo } from './would-do';
