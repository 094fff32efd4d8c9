import { parts } from '../../site-file';
import { accountGates, accountPage, linkTo, type ReadyMade, root, siteOf, topMenu } from './start';

const { branch, course, expectation, gate, item, leaveOut, own, page, reading, unit } = parts;

const ENROLLED = 'enrolled in "The course" or role "Tutor"';

const FOR_A_PLACE = {
  kind: 'locked',
  reason: own('This is for those who have a place.'),
  next: { kind: 'buy', product: 'place' },
};

/** A course that is sold: a first lesson for everybody, the rest for those who have a place. */
export const taught: ReadyMade = {
  name: 'A course with a shop',
  about:
    'A course that is sold: a first lesson for everybody, and the rest, in order, for those who have a place.',
  owner: { roles: ['tutor'] },
  site: (start) =>
    siteOf(start, {
      roles: [{ id: 'tutor', name: 'Tutor' }],
      products: [{ id: 'place', name: 'A place in the course', kind: 'one-off' }],
      items: [
        root(start.title, 'Whoever bought a place signs in here and goes on where they were.'),
        page('home', 'site', 'Home', '/', 'What can be learnt here, and what it costs.', [
          {
            type: 'text',
            id: 'home-text',
            title: 'Opening words',
            text: `# Learn it once, and properly

Say here what somebody can do at the end that they can’t do now. Replace these words at the desk, under *Site*.

The [first lesson](/course/first-lesson) is free. Read it, and see whether you want the others.`,
          },
          { type: 'prices', id: 'home-prices', title: 'A place', text: '', products: ['place'] },
        ]),
        accountPage,
        course(
          'the-course',
          'The course',
          '/course',
          'Six evenings, from the beginning to something you made yourself.',
          'Everything is here when you need it. What comes next opens when you are done with what comes before.',
        ),
        unit('trying', 'the-course', 'To try'),
        reading(
          'first-lesson',
          'trying',
          'The first lesson',
          '/course/first-lesson',
          'Begin with something small enough to be finished today. Write it down, put it away, and look at it again tomorrow.',
        ),
        unit('beginning', 'the-course', 'Beginning'),
        reading(
          'tools',
          'beginning',
          'What you need',
          '/course/tools',
          'Less than you think. Borrow before you buy, and buy one thing at a time.',
        ),
        unit('making', 'the-course', 'Making'),
        reading(
          'first-piece',
          'making',
          'A first piece',
          '/course/first-piece',
          'Take an evening for it, and don’t mend anything until it is whole.',
        ),
        reading('second-look', 'making', 'A second look', '/course/second-look', 'Now mend it. Then stop.'),
        ...topMenu([linkTo('the-course', 'The course')]),
      ],
      shop: {
        graceDays: 7,
        products: [
          {
            product: 'place',
            about: 'All lessons, for a year.',
            grants: { enrolments: [{ course: 'the-course', days: 365 }] },
            prices: [{ id: 'place-price', amount: 4900, currency: 'EUR', months: null }],
          },
        ],
      },
      policy: {
        gates: [
          gate('beginning', branch('beginning'), ENROLLED, FOR_A_PLACE),
          gate('making', branch('making'), ENROLLED, FOR_A_PLACE),
          gate(
            'in-order',
            branch('making'),
            'completed the one before or role "Tutor"',
            parts.locked(own('This opens when you are done with the one before it.')),
          ),
          gate('home-prices', item('home-prices'), 'not owns "A place in the course"', leaveOut),
          ...accountGates,
        ],
        expectations: [
          expectation('place-only', ENROLLED, { kind: 'only opens' }, [
            branch('beginning'),
            branch('making'),
          ]),
          expectation('first-free', 'everyone', { kind: 'opens' }, [item('home'), item('first-lesson')]),
        ],
      },
    }),
};
