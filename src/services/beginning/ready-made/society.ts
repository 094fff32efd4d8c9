import { parts } from '../../site-file';
import { accountGates, accountPage, linkTo, post, type ReadyMade, root, siteOf, topMenu } from './start';

const { branch, expectation, gate, guestsSignIn, item, leaveOut, message, own, page, postsIn } = parts;
const { summary, teaser, written } = parts;

const MEMBERS = 'level at least "Member"';

/** A society: pages for everybody, a part for members, papers for the committee. */
export const society: ReadyMade = {
  name: 'A members’ society',
  about: 'Pages for everybody, a part for members with a way to join, and papers for the committee.',
  owner: { level: 'member', roles: ['committee'] },
  site: (start) =>
    siteOf(start, {
      levels: [
        { id: 'member', name: 'Member' },
        { id: 'patron', name: 'Patron' },
      ],
      roles: [{ id: 'committee', name: 'Committee member' }],
      items: [
        root(start.title, 'Members sign in here. If you are new, [join us](/join).'),
        page('home', 'site', 'Home', '/', 'Who we are, and what is on.', [
          {
            type: 'text',
            id: 'home-text',
            title: 'Opening words',
            text: `# Come and see what we do

Say here in three lines who you are, where you meet, and what somebody who has never been may expect. Replace these words at the desk, under *Site*.

What is on this month stands under [Events](/events).`,
          },
          {
            type: 'call',
            id: 'home-guests',
            title: 'For guests',
            text: '## New here?\n\nMake an account: it costs nothing, and we know you next time.',
            label: 'Sign up',
            to: { kind: 'sign up' },
          },
          { type: 'posts', id: 'home-posts', title: 'News', count: 5 },
        ]),
        page(
          'events',
          'site',
          'Events',
          '/events',
          'When and where we meet.',
          `We meet on the first Tuesday of the month, at seven, in the upper room of the old mill. Guests are welcome.

:::for ${MEMBERS}
Members may come from six and set the tables. The key hangs where it always hangs.
:::otherwise
The door is open from a quarter to seven.
:::`,
        ),
        page(
          'join',
          'site',
          'Join us',
          '/join',
          'How to become a member, and what it brings.',
          `**Members** read the handbook, come to every evening and vote in spring. **Patrons** do the same, and keep the roof on.

Come to an evening and say so, or write to us. Whoever keeps the members’ list gives you your level at the desk, under *People*.`,
        ),
        page(
          'members',
          'site',
          'For members',
          '/members',
          'The handbook, and what members need.',
          'Welcome. Whatever stands below this page is for members: the gate is over the whole branch, so that a new page here is closed to everybody else from its first day.',
        ),
        page(
          'handbook',
          'members',
          'Handbook',
          '/members/handbook',
          'How we do things here.',
          `## Evenings

Who opens, brews; who closes, sweeps.

## Borrowing

Write it into the book by the door, with the day on which it comes back.`,
        ),
        page(
          'minutes',
          'members',
          'Minutes',
          '/members/minutes',
          'What the committee has decided.',
          '**Last time.** The roof is to be looked at before winter. The spring meeting is in April.',
        ),
        accountPage,
        post(
          'doors-open',
          'The doors are open again',
          'News',
          start.today,
          'We are back in the upper room.',
          'The stairs are mended and the room is warm. Come and see.',
        ),
        post(
          'work-day',
          'A day of work in the garden',
          'For members',
          start.today,
          'Gloves, spades and soup.',
          'We begin at nine and stop when the soup is gone. Bring gloves; spades are in the shed.',
        ),
        ...topMenu([linkTo('events', 'Events'), linkTo('members', 'For members'), linkTo('join', 'Join us')]),
      ],
      policy: {
        gates: [
          gate('members', branch('members'), MEMBERS, teaser(summary, written, item('join')), guestsSignIn),
          gate(
            'minutes',
            item('minutes'),
            'role "Committee member"',
            message(own('The minutes are for the committee.')),
          ),
          gate(
            'posts-for-members',
            postsIn('For members'),
            MEMBERS,
            teaser(summary, own('This is for members.'), item('join')),
          ),
          gate('home-guests', item('home-guests'), 'not signed in', leaveOut),
          ...accountGates,
        ],
        expectations: [
          expectation('members-only', MEMBERS, { kind: 'only opens' }, [branch('members')]),
          expectation('minutes-only', 'role "Committee member"', { kind: 'only opens' }, [item('minutes')]),
          expectation('guests-never', 'not signed in', { kind: 'never opens' }, [postsIn('For members')]),
          expectation('everyone', 'everyone', { kind: 'opens' }, [item('home'), item('join')]),
        ],
      },
    }),
};
