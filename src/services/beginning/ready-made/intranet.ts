import { parts } from '../../site-file';
import { accountLinks, accountPage, linkTo, menuOf, post, type ReadyMade, root, siteOf } from './start';

const { branch, expectation, gate, guestsSignIn, item, message, own, page, redirectToSignIn } = parts;

const DEPARTMENTS = [
  { id: 'front-office', name: 'Front office', says: 'Who answers the telephone, and what to say.' },
  { id: 'accounts', name: 'Accounts', says: 'Invoices, expenses and the books.' },
  { id: 'workshop', name: 'Workshop', says: 'Machines, stock and safety.' },
] as const;

/** What somebody has who made an account and was not let in yet. */
const OWN = [item('account'), branch('foot')];

/** Everything behind the way in, with a part for each department. */
export const intranet: ReadyMade = {
  name: 'An intranet with departments',
  about:
    'Nothing is open to strangers. Everybody who works here has the common pages, and each department its own.',
  owner: { roles: ['employee'], groups: DEPARTMENTS.map(({ id }) => id) },
  site: (start) =>
    siteOf(start, {
      signUp: { who: 'invited' },
      roles: [{ id: 'employee', name: 'Employee' }],
      groups: DEPARTMENTS.map(({ id, name }) => ({ id, name })),
      items: [
        root(start.title, 'This is for people who work here. Sign in with the address that you were given.'),
        page('home', 'site', 'Home', '/', 'What everybody needs.', [
          {
            type: 'text',
            id: 'home-text',
            title: 'Opening words',
            text: `# Good morning, :own[name]{or="all of you"}

What everybody needs stands here and in the menu. Replace these words at the desk, under *Site*.`,
          },
          { type: 'posts', id: 'home-posts', title: 'News', count: 5 },
        ]),
        page(
          'house-rules',
          'site',
          'House rules',
          '/house-rules',
          'Hours, holidays, and who to ask.',
          `## Hours

Somebody is there from eight to five.

## Holidays

Say so in good time, and tell whoever stands in for you.`,
        ),
        ...DEPARTMENTS.map(({ id, name, says }) =>
          page(id, 'site', name, `/${id}`, says, `What the department needs. ${says}`),
        ),
        accountPage,
        post(
          'new-site',
          'We have a new place for all of this',
          'News',
          start.today,
          'What stood on the wall stands here now.',
          'What stood on the wall in the corridor stands here now. Say what is missing.',
        ),
        ...menuOf([
          linkTo('house-rules', 'House rules'),
          ...DEPARTMENTS.map(({ id, name }) => linkTo(id, name)),
        ]),
        { kind: 'menu', id: 'foot', parent: 'site', title: 'Foot', place: 'foot' },
        ...accountLinks('foot'),
      ],
      policy: {
        gates: [
          gate(
            'employees',
            branch('site'),
            'role "Employee"',
            message(own('This is for people who work here. Whoever looks after the site can let you in.')),
            { ...guestsSignIn, except: OWN },
          ),
          ...DEPARTMENTS.map(({ id, name }) =>
            gate(id, branch(id), `in group "${name}"`, message(own(`This is for the department: ${name}.`))),
          ),
          gate('account', item('account'), 'signed in', redirectToSignIn),
        ],
        expectations: [
          expectation('employees-only', 'role "Employee"', { kind: 'only opens' }, [branch('site')], OWN),
          ...DEPARTMENTS.map(({ id, name }) =>
            expectation(`${id}-only`, `in group "${name}"`, { kind: 'only opens' }, [branch(id)]),
          ),
        ],
      },
    }),
};
