import { type ItemInFile, parts } from '../../site-file';
import { accountGates, accountPage, linkTo, type ReadyMade, root, siteOf, topMenu } from './start';

const { branch, expectation, gate, item, missing, page } = parts;

const CLIENTS = [
  { id: 'first-client', name: 'First client', address: '/clients/first' },
  { id: 'second-client', name: 'Second client', address: '/clients/second' },
] as const;

const who = (name: string) => `in group "${name}" or role "Colleague"`;

/** A place of their own for each client, of which the others never learn. */
export const clients: ReadyMade = {
  name: 'A place for clients',
  about:
    'Each client has pages of their own, and arrives there. To everybody else they are not there at all.',
  owner: { roles: ['colleague'] },
  site: (start) =>
    siteOf(start, {
      signUp: { who: 'invited' },
      roles: [{ id: 'colleague', name: 'Colleague' }],
      groups: CLIENTS.map(({ id, name }) => ({ id, name, private: true })),
      items: [
        root(start.title, 'Clients sign in here, and arrive at their own pages.'),
        page(
          'home',
          'site',
          'Home',
          '/',
          'What we do, and how to reach us.',
          `# Good work, kept in one place

Say here what you do and for whom. Replace these words at the desk, under *Site*.

If we work together already, [sign in](/sign-in): your plans, papers and dates are there.`,
        ),
        page(
          'team',
          'site',
          'Team',
          '/team',
          'What the team needs.',
          '**This week.** Who is where, and what is due.',
        ),
        ...CLIENTS.flatMap(({ id, name, address }): ItemInFile[] => [
          page(
            id,
            'site',
            name,
            address,
            'Plans, papers and dates.',
            'Welcome, :own[name]{or="all of you"}. What stands here and below is for the two of us.',
          ),
          page(
            `${id}-papers`,
            id,
            'Papers',
            `${address}/papers`,
            'What we have agreed.',
            'The first draft is due on Friday.',
          ),
        ]),
        accountPage,
        ...topMenu([...CLIENTS.map(({ id, name }) => linkTo(id, name)), linkTo('team', 'Team')]),
      ],
      policy: {
        gates: [
          ...CLIENTS.map(({ id, name }) => gate(id, branch(id), who(name), missing)),
          gate('team', item('team'), 'role "Colleague"', missing),
          ...accountGates,
        ],
        landings: CLIENTS.map(({ id, name }) => ({
          id: `${id}-lands`,
          after: 'sign in',
          when: `in group "${name}"`,
          to: id,
          always: false,
        })),
        expectations: [
          ...CLIENTS.map(({ id, name }) =>
            expectation(`${id}-only`, who(name), { kind: 'only opens' }, [branch(id)]),
          ),
          expectation('home-open', 'everyone', { kind: 'opens' }, [item('home')]),
        ],
      },
    }),
};
