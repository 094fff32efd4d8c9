import { parts } from '../../site-file';
import { accountPage, type ReadyMade, root, siteOf, topMenu } from './start';

/** A home page, a menu, an account: nothing gated. */
export const empty: ReadyMade = {
  name: 'An empty site',
  about: 'A home page, a menu and an account page. Nothing is gated.',
  owner: {},
  site: (start) =>
    siteOf(start, {
      items: [
        root(start.title),
        parts.page(
          'home',
          'site',
          'Home',
          '/',
          '',
          `# ${start.title.replace(/[\\`*_#<>[\]:]/g, '\\$&')}

This is the home page. Change it at the desk, under *Site*.`,
        ),
        accountPage,
        ...topMenu([]),
      ],
    }),
};
