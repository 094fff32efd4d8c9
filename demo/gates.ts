/** The gates and audiences of Larkfell. Conditions stand in the text form, as in any site file. */
import { parts } from '@/services';

const {
  audience,
  branch,
  expectation,
  gate,
  goTo,
  guestsSignIn,
  item,
  leaveOut,
  locked,
  missing,
  named,
  own,
  postsIn,
  redirectToSignIn,
  select,
  summary,
  teaser,
  written,
} = parts;

const redirectToPassphrase = { kind: 'redirect', to: { kind: 'passphrase' } };
const message = parts.message(written, { kind: 'sign in' });

export const policy = {
  gates: [
    gate('join', item('join'), 'not signed in or level is not set', goTo('account')),
    gate('account', item('account'), 'signed in', redirectToSignIn),
    gate(
      'observers-room',
      branch('observers'),
      'level at least "Observer" and not in group "Suspended"',
      named('way-to-join'),
      guestsSignIn,
    ),
    gate('sample-chart', branch('sample-chart'), 'everyone', missing, { stance: 'instead' }),
    gate('crew', branch('crew'), 'in group "Dome crew"', missing),
    gate('hollin-school', branch('hollin-school'), 'in group "Hollin School" or role "Trustee"', message),
    gate('tarn-survey', branch('tarn-survey'), 'in group "Tarn Survey" or role "Trustee"', message),
    gate('trustees', item('trustees'), 'role "Trustee"', message),
    gate(
      'keepers-evening',
      item('keepers'),
      'level exactly "Keeper" and profile "hours logged" at least 100',
      goTo('join'),
    ),
    gate(
      'comet-night',
      item('comet-night'),
      'owns "Comet night" or knows passphrase "Comet night by mail"',
      redirectToPassphrase,
    ),
    gate('night-logs', postsIn('Night logs'), 'level at least "Friend"', named('way-to-join'), {
      cases: [
        {
          when: 'not signed in',
          give: teaser(summary, own('Night logs are for members. An account costs nothing.'), {
            kind: 'sign up',
          }),
        },
      ],
    }),
    gate(
      'kit-reviews',
      postsIn('Kit reviews'),
      'level at least "Observer"',
      teaser(
        {
          kind: 'text',
          text: 'We test what we lend, in the dark and in the frost. The verdict is for Observers.',
        },
        written,
        item('join'),
        true,
      ),
      // Nobody comes to it: Keepers pass. The findings say so.
      { cases: [{ when: 'level at least "Keeper"', give: message }] },
    ),
    gate('bulletins', postsIn('Crew bulletins'), 'in group "Dome crew"', leaveOut),
    gate(
      'seeing-forecast',
      item('seeing-forecast'),
      'level at least "Observer"',
      teaser(summary, written, { kind: 'buy', product: 'observer-pass' }),
    ),
    gate('winter-atlas', item('atlas-file'), 'owns "Winter atlas"', missing),
    gate('home-guests', item('home-guests'), 'not signed in', leaveOut),
    gate('home-follow', item('home-follow'), 'signed in and not in group "Sky diary followers"', leaveOut),
    gate('home-diary', item('home-diary'), 'in group "Sky diary followers"', leaveOut),
    gate('diary-past', item('sky-diary-past'), 'in group "Sky diary followers"', {
      kind: 'locked',
      reason: own('Past weeks are for those who follow the diary.'),
      next: { kind: 'follow', group: 'sky-diary' },
    }),
    gate(
      'raw-frames',
      select('item kind is "file" and item category is "Raw frames"'),
      'visitor owns item or in group "Dome crew"',
      missing,
    ),
    gate('induction', item('dome-induction'), 'in group "Dome crew" or role "Tutor"', message, guestsSignIn),
    gate(
      'induction-in-order',
      branch('before-you-climb'),
      'completed the one before or role "Tutor"',
      locked(own('This opens when you are done with the one before it.')),
    ),
    gate('night-drill', item('night-drill'), 'completed "Ladder safety" or role "Tutor"', locked(written)),
    gate(
      'optics-bench',
      item('optics-bench'),
      'profile team is "Optics" or role "Tutor"',
      locked(own('This part is for the Optics team.')),
    ),
    gate(
      'optics-bench-in-time',
      item('optics-bench'),
      'enrolment in "Dome operator induction" at least 7 days ago or role "Tutor"',
      locked(own('This opens a week after you are enrolled.')),
    ),
    gate('grounds-round', item('grounds-round'), 'profile team is "Grounds" or role "Tutor"', leaveOut),
    gate(
      'unattended-opening',
      item('unattended-opening'),
      'profile "dome certificate" is yes and profile team is "Optics" or role "Tutor"',
      locked(own('This needs your dome certificate, and the Optics team.')),
    ),
    gate(
      'small-dome',
      item('small-dome-unit'),
      'enrolled in "Astrophotography" or role "Tutor"',
      locked(own('This part is for those who are enrolled.')),
    ),
    gate('sign-in-link', item('link-sign-in'), 'not signed in', leaveOut),
    gate('thursday-notice', item('thursday-notice'), 'not signed in', leaveOut),
    gate('lending-shelf', item('lending-shelf'), 'role "Volunteer"', leaveOut),
    gate('no-picture-yet', item('no-picture-yet'), 'item picture is not set', leaveOut),
  ],
  turnAways: [{ id: 'way-to-join', name: 'The way to join', give: teaser(summary, written, item('join')) }],
  landings: [
    { id: 'school', after: 'sign in', when: 'in group "Hollin School"', to: 'hollin-school', always: false },
    { id: 'survey', after: 'sign in', when: 'in group "Tarn Survey"', to: 'tarn-survey', always: false },
  ],
  audiences: [
    audience(
      'ready-crew',
      'Crew ready for the dome',
      'in group "Dome crew" and profile "dome certificate" is yes and profile "certificate expires" after today',
    ),
    audience(
      'good-standing',
      'Observers in good standing',
      'level at least "Observer" and not in group "Suspended"',
    ),
    audience('supporters', 'Supporters', 'level is set or owns "Winter atlas"'),
    audience('partners', 'Partners', 'in group "Hollin School" or in group "Tarn Survey"'),
    audience('diary', 'Sky diary readers', 'in group "Sky diary followers"'),
    audience('busy', 'Busy hands', 'profile "hours logged" at least 100 or role "Volunteer"'),
    audience(
      'optics-ready',
      'Optics ready',
      'audience "Crew ready for the dome" and profile team is "Optics"',
    ),
    audience('newcomers', 'Newcomers', 'joined within the last 90 days'),
    audience('subscribers', 'Subscribers', 'subscribed to "Observer pass" or subscribed to "Keeper pass"'),
  ],
  expectations: [
    expectation('visit-open', 'everyone', { kind: 'opens' }, [item('visit')]),
    expectation('crew-only', 'in group "Dome crew"', { kind: 'only opens' }, [branch('crew')]),
    expectation('night-logs-kept', 'not signed in', { kind: 'never opens' }, [postsIn('Night logs')]),
    expectation(
      'suspended-out',
      'in group "Suspended"',
      { kind: 'never opens' },
      [branch('observers')],
      [branch('sample-chart')],
    ),
  ],
};
