/** The gates and audiences of Larkfell. Conditions stand in the text form, as in any site file. */

const item = (name: string) => ({ kind: 'item', item: name });
const branch = (name: string) => ({ kind: 'branch', item: name });
const goTo = (name: string) => ({ kind: 'redirect', to: item(name) });
const redirectToSignIn = { kind: 'redirect', to: { kind: 'sign in' } };
const redirectToPassphrase = { kind: 'redirect', to: { kind: 'passphrase' } };
const missing = { kind: 'missing' };
const leaveOut = { kind: 'leave out' };
const message = { kind: 'message', reason: { kind: 'written' }, next: { kind: 'sign in' } };
const joinTeaser = { kind: 'teaser', text: null, reason: { kind: 'written' }, next: item('join') };

const gate = (
  id: string,
  target: object,
  who: string,
  last: object,
  more: { readonly stance?: 'instead'; readonly cases?: readonly object[] } = {},
) => ({
  id,
  what: { targets: [target], except: [] },
  who,
  otherwise: { cases: more.cases ?? [], last },
  stance: more.stance ?? 'also',
});

const audience = (id: string, name: string, who: string) => ({ id, name, who });

export const policy = {
  gates: [
    gate('join', item('join'), 'not signed in or level is not set', goTo('account')),
    gate('account', item('account'), 'signed in', redirectToSignIn),
    gate(
      'observers-room',
      branch('observers'),
      'level at least "Observer" and not in group "Suspended"',
      joinTeaser,
      { cases: [{ when: 'not signed in', give: redirectToSignIn }] },
    ),
    gate('sample-chart', item('sample-chart'), 'everyone', missing, { stance: 'instead' }),
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
    gate('sign-in-link', item('link-sign-in'), 'not signed in', leaveOut),
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
};
