/** What has become of the expectations that a site file brings, or that the site here has. */
import { compile, momentIn } from '@/core';
import { type ExpectationReport, reportOn } from '../policy';
import { plainRequest, type Trivet } from '../running';
import type { SiteInFile } from './read-site-file';

/** Those of a file, on the day that it is where the site is. */
export const expectationsInFile = (site: SiteInFile, now: Date): Promise<readonly ExpectationReport[]> =>
  reportOn(compile(site.policy, site.outline, site.names), site, momentIn(site.file.timeZone, now).today);

/** Those that are live, for whoever has the data folder to themselves. */
export const expectationsOfSite = ({ state }: Trivet, now: Date): Promise<readonly ExpectationReport[]> =>
  reportOn(state.live.compiled, state, plainRequest(state, now).today);
