/**
 * Everything that Trivet itself says to visitors, in English; pages, titles and reasons are the site's own. Another language is
 * another file like this one, with the same names, and a line in `languages.ts`. Words in [brackets] become a link; in letters
 * a {name} is filled in, and a line of which something is not there is left out.
 */
import { counted, listed } from '../english';
import { moneyInWords } from '../selling/money';
import { priceInWords } from '../selling/terms';
import { dayInWords } from '../site/day';
import type { ActivityType } from '../site/kinds';
import { numbersIn } from './numbers';

const YOURS = 'What you have, and everything that you paid: {link}';
const RENEWED = 'It is paid again on {next}: {price}.';
const PASSWORD = 'You have an account now, with this mail address. Choose a password for it: {password}';
const CODE = `Your code is {code}. It is good for a quarter of an hour.

If you did not ask for it, you need do nothing.`;

export const english = {
  tag: 'en',
  name: 'English',

  // How things are written.
  day: dayInWords,
  money: moneyInWords,
  price: priceInWords,
  all: (parts: readonly string[]) => listed(parts),
  either: (parts: readonly string[]) => listed(parts, 'or'),
  number: (value: number) => numbersIn('en').format(value),
  decimal: (value: number, digits: number) => value.toFixed(digits),

  frame: {
    skip: 'Skip to the text',
    announcements: 'Announcements',
    menu: 'Menu',
    search: 'Search',
    before: 'Before the text',
    after: 'After the text',
    beside: 'Beside the text',
    foot: 'At the foot',
    desk: 'Desk',
    below: (title: string) => `Below ${title}`,
    locked: 'locked',
    closed: 'Not open to you',
    closedHeading: 'This isn’t open to you',
    nothing: 'Nothing here',
    nothingHeading: 'There is nothing at this address',
    nothingText: 'Check the address for a slip, or start again from the menu above.',
    back: 'Back',
    onWalk: 'On a walk nothing is sent. Press the button to see what it would do.',
    unreadable: 'That form could not be read. Fill it in here and send it again.',
    tooOften: (minutes: number) =>
      `That was tried too often. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`} and try again.`,
    busy: 'Too many people are doing this just now. Wait a few seconds and try again.',
    cutOff: 'What is open to you can’t be looked up just now. Wait a few seconds and try again.',
  },

  lists: {
    previous: 'Before',
    next: 'After',
    more: (category: string | null) => `More in ${category ?? 'posts'}`,
    tagged: (tag: string) => `Tagged ${tag}`,
    newer: 'Newer',
    older: 'Older',
    feed: 'As a feed',
    all: 'All of them',
    latest: (site: string) => `The latest from ${site}`,
    search: (question: string) => `Search: ${question}`,
    lookFor: 'What to look for',
    look: 'Look',
    noHits: 'Nothing you can open has these words. Try fewer, or others.',
    hits: (count: number, more: boolean) =>
      `${counted(count, 'place')}${more ? ', and more: try more words' : ''}`,
    inWords: 'In words',
  },

  steps: {
    signIn: 'Sign in',
    signUp: 'Sign up',
    passphrase: 'Type a passphrase',
    follow: (group: string) => `Follow ${group}`,
    leave: (group: string) => `Leave ${group}`,
    signInToFollow: 'Sign in to follow',
    signInToFollowOf: (group: string) => `Sign in to follow ${group}`,
    buy: (product: string, price: string | null) => `Buy ${product}${price === null ? '' : `, ${price}`}`,
  },

  signIn: {
    title: 'Sign in',
    already: (name: string) =>
      `You are signed in as ${name}. Sign in as somebody else, or [go to the first page].`,
    notForYou: (name: string) =>
      `You are signed in as ${name}, and what you asked for isn’t open to this account. Sign in as somebody else, or [go to the first page].`,
    back: 'Afterwards you will be back where you were.',
    email: 'Mail address',
    password: 'Password',
    button: 'Sign in',
    signUp: 'Sign up',
    forgot: 'I forgot my password',
    noEmail: 'Type your mail address.',
    oneEmail: 'Type one mail address.',
    longEmail: 'That is too long for a mail address.',
    noPassword: 'Type your password.',
    onePassword: 'Type one password.',
    longPassword: 'That is too long for a password.',
    wrong: 'That mail address and password don’t go together.',
  },

  passphrase: {
    title: 'Passphrase',
    lead: 'Type the passphrase you were given.',
    label: 'Passphrase',
    button: 'Go on',
    none: 'Type the passphrase.',
    one: 'Type one passphrase.',
    long: 'That is too long for a passphrase.',
    wrong: 'That is not a passphrase of this site.',
  },

  signUp: {
    title: 'Sign up',
    lead: 'We send a code to your mail address, and that is all we use it for.',
    another: (name: string) => `You are signed in as ${name}. This makes another account.`,
    invitedOnly: 'Accounts are for those who were invited: type the mail address at which you were.',
    domainsOnly: (domains: string) =>
      `Accounts are for those with a mail address at ${domains}, and for those who were invited.`,
    name: 'Your name',
    password: 'Password, at least 8 characters',
    newPassword: 'New password, at least 8 characters',
    button: 'Send me a code',
    account: 'I have an account',
    noName: 'Type your name.',
    oneName: 'Type one name.',
    longName: 'A name has at most 200 letters.',
    badEmail: 'Type a mail address like name@place.example.',
    longEmail: 'That is too long.',
    onePassword: 'Choose one password.',
    shortPassword: 'A password has at least 8 characters.',
  },

  code: {
    title: 'Your code',
    lead: 'If everything is in order, a mail with six digits is on its way to you. They are good for a quarter of an hour.',
    label: 'Six digits',
    finish: 'Finish',
    keep: 'Keep this password',
    again: 'Send it again',
    anew: 'Begin again',
    none: 'Type the code.',
    long: 'The code has six digits.',
    over: 'That code is over. Ask for a new one.',
    fifth: 'That was not the code, for the fifth time. Ask for a new one.',
    wrong: (left: number) =>
      `That is not the code. You can try ${left === 1 ? 'once' : `${left} times`} more.`,
    sentOften: 'It was sent three times. Look among unwanted mail, or begin again.',
    unreadable: 'That form could not be read. Begin again.',
    gone: 'That account is gone. Sign up for a new one.',
  },

  reset: {
    title: 'New password',
    heading: 'A new password',
    lead: 'Type your mail address. If there is an account with it, a code is sent there.',
  },

  invited: {
    title: 'You are invited',
    heading: (name: string) => `There is a place for you, ${name}`,
    lead: (email: string) => `Choose a password. From then on you sign in with it and ${email}.`,
    button: 'Come in',
    over: 'This invitation is over',
    overText:
      'It is good for a week and for one time, and only the latest one counts. Whoever invited you can send another.',
    password: 'Have a password already? [Sign in], or [choose a new one].',
  },

  owner: {
    title: 'Own this site',
    newcomer: (email: string) => `This makes an account for ${email} and gives it the whole desk.`,
    known: (name: string) =>
      `${name}, choose a new password. You get the whole desk, and are signed out everywhere else.`,
    button: 'Take it',
  },

  account: {
    title: 'Your account',
    name: 'Name',
    email: 'Mail address',
    level: 'Level',
    groups: 'Groups',
    none: 'none',
    keep: 'Keep these',
    keys: 'Your own feed, and keys for apps',
    empty: 'Not filled in',
    yes: 'yes',
    no: 'no',
    oneValue: 'Type one value, and not a long one.',
    field: {
      text: (name: string) => `${name} is a text.`,
      long: (name: string, most: number) => `${name} has at most ${most} letters.`,
      choice: (name: string, choices: readonly string[]) => `${name} is one of ${choices.join(', ')}.`,
      number: (name: string) => `${name} is a number.`,
      date: (name: string) => `${name} is a day. Write it like 2026-12-01.`,
      yesNo: (name: string) => `${name} is yes or no.`,
    },
  },

  keys: {
    title: 'Your feed and keys',
    lead: 'A feed reader or an app gets what you get on the site. Whoever has a key reads as you do, so keep them to yourself and take back what you no longer use.',
    feedAddress: 'The address of your feed:',
    token: 'The key, as a bearer token:',
    once: 'It is shown this once. Keep it now.',
    what: 'What it is for',
    either: 'Feed or app',
    feed: 'my own feed',
    app: 'an app',
    ofFeed: 'feed',
    ofApp: 'app',
    make: 'Make a key',
    takeBack: 'Take back',
    takeBackOf: (name: string) => `Take back ${name}`,
    noUse: 'Choose what the key is for.',
    oneName: 'Give it one name.',
    noName: 'Give it a name, so that you know it later.',
    longName: 'A name has at most 100 letters.',
    tooMany: (most: number) => `You have ${most} keys. Take some back first.`,
  },

  form: {
    optional: '(if you like)',
    choose: 'Choose …',
    missing: 'Something is missing. Nothing was sent yet.',
    tick: 'Tick this to go on.',
    fillIn: 'Fill this in.',
    email: 'Write a mail address like name@place.example.',
    choice: 'Choose one of these.',
  },

  course: {
    label: 'What there is to do',
    progress: 'How far you are',
    done: (done: number, of: number) => `${done} of ${of} done`,
    goOn: (title: string) => `Go on: ${title}`,
    begin: (title: string) => `Begin: ${title}`,
    enrol: 'Enrol',
    signInToEnrol: 'Sign in to enrol',
    types: { reading: 'reading', video: 'video', quiz: 'quiz', 'hand-in': 'hand-in' },
    isDone: 'done',
    /** What learners say when they are done with something; null where that is not theirs to say. */
    says: {
      reading: 'I have read this',
      video: 'I have watched this',
      quiz: null,
      'hand-in': null,
    } as Readonly<Record<ActivityType, string | null>>,
    watchedNow: 'You have watched this, and are done with it.',
    youAreDone: 'You are done with this.',
    youAreDoneWith: (score: number) => `You are done with this: ${score} %.`,
    around: 'In this course',
    previous: 'Before',
    next: 'Next',
    nextLocked: 'Next, and locked',
  },

  quiz: {
    signIn: 'Sign in to take it',
    toQuestions: 'To the questions',
    yourAttempts: 'Your attempts',
    questions: (count: number) => counted(count, 'question'),
    minutes: (count: number) => counted(count, 'minute'),
    attempts: (count: number) => counted(count, 'attempt'),
    points: (count: number) => counted(count, 'point'),
    noHurry: 'no hurry',
    passMark: (percent: number) => `passed with ${percent} %`,
    question: (number: number) => `Question ${number}`,
    answerTo: (number: number) => `Answer to question ${number}`,
    how: {
      one: 'Choose one.',
      several: 'Choose all that are right.',
      number: 'Write a number.',
      text: 'Write a word or two.',
      order: 'Give each its place: 1 comes first.',
      pairs: 'Choose what belongs to each.',
    },
    notNumber: 'Write a number, like 12 or 12.5, and nothing else.',
    twice: (place: string) => `Two of these are in place ${place}. Give each its own.`,
    notAnswered: 'This has no answer yet.',
    unreadableAnswer: 'That could not be read. Answer it again.',
    longAnswer: (most: number) => `An answer has at most ${most} letters. What you had before is kept.`,
    notOffered: 'That was not among what there is to choose from. Answer it again.',
    attemptOf: (number: number, of: number | null) => `Attempt ${number}${of === null ? '' : ` of ${of}`}`,
    until: (clock: string) => `until ${clock}`,
    clockOn: (clock: string, day: string) => `${clock} on ${day}`,
    handIn: 'Hand in',
    handInAsItIs: 'Hand in as it is',
    keep: 'Keep, and go on later',
    clockRuns: 'The clock runs from when you begin, also while this page is closed.',
    begin: 'Begin',
    again: (left: number) => `Try again: ${counted(left, 'attempt')} left`,
    againFrom: (when: string) => `You can try again from ${when}.`,
    noneLeft: 'You have made all your attempts.',
    nothingAsked: 'There are no questions yet.',
    byQuestion: 'Question by question',
    lastByQuestion: 'Your last attempt, question by question',
    passed: 'passed',
    notPassed: 'not passed',
    timeUp: '(its time was up; what was kept by then counts)',
    about: 'About this quiz',
    said: 'You said',
    rightIs: 'Right is',
    giveOrTake: (number: number, tolerance: number) => `${number}, give or take ${tolerance}`,
    worth: {
      right: 'Right',
      'partly right': 'Partly right',
      wrong: 'Not right',
      'not answered': 'Not answered',
    },
    notes: {
      kept: 'Your answers are kept. You can go on now, or another day.',
      'to mend': 'It is not handed in yet: look at what is marked below. What you answered is kept.',
      unreadable: 'That could not be read, so nothing was changed. What you had answered before is kept.',
      over: 'That attempt takes no answers any more.',
    },
    // Said by the page itself while an attempt is filled in.
    keptNow: 'Kept as you filled it in.',
    notAllKept: 'Not all of it could be kept. Press Keep to see why.',
    offline: 'There is no connection just now. It is kept again with the next answer.',
    left: 'left',
  },

  handIn: {
    signIn: 'Sign in to hand something in',
    toHandIn: 'Hand in, and what became of it',
    yours: 'What you handed in',
    text: 'a text',
    files: (count: number) => counted(count, 'file'),
    upTo: (files: string) => `up to ${files}`,
    kinds: {
      pictures: 'pictures',
      pdf: 'PDF',
      texts: 'plain text',
      films: 'videos',
      sounds: 'sound',
    },
    each: (megabytes: number) => `${megabytes} MB each`,
    byTutor: 'looked at by a tutor',
    handedIn: 'It is handed in. A tutor will look at it; until then you can put a newer one in its place.',
    chooseAgain: 'What you wrote is still there; choose your files again.',
    askTutor: 'You have handed in as often as one can here. Ask your tutor.',
    what: 'What you want to hand in',
    atMost: (files: number) => `Files, at most ${files}`,
    aFile: 'A file',
    instead: 'Hand in instead',
    button: 'Hand in',
    about: 'About this hand-in',
    version: (number: number) => `Version ${number}`,
    wrote: 'What you wrote',
    became: {
      waiting: 'waits for a tutor',
      replaced: 'a newer one took its place',
      accepted: 'accepted',
      'given back': 'given back',
    },
    unreadable: 'That could not be read, so nothing was handed in. Send it again.',
    tooLarge: (megabytes: number | null) =>
      `That is larger than what is taken here${megabytes === null ? '' : `: at most ${megabytes} MB a file`}. Nothing was handed in.`,
    allTooLarge: (megabytes: number) =>
      `Everything that you handed in would be larger than ${megabytes} MB. Make your files smaller.`,
    doneAlready: 'You are done with this already. There is nothing more to hand in.',
    tooOften: 'You have handed in as often as one can here.',
    elsewhere: 'You handed something in at the same moment elsewhere. Look at that first.',
    longText: (most: string) => `A text has at most ${most} letters. Shorten it.`,
    noText: 'Nothing is written here: hand in a file.',
    noFiles: 'No files are taken here: write something.',
    tooMany: (most: number) => `At most ${counted(most, 'file')} can be handed in. Leave some out.`,
    nothing: 'Write something, or choose a file.',
    noFile: 'Choose a file to hand in.',
    largeFile: (name: string, megabytes: number) =>
      `${name} is larger than ${megabytes} MB. Make it smaller.`,
    otherKind: (name: string, kinds: string) => `${name} is none of what is taken here: ${kinds}.`,
    badFile: (name: string, problem: string) => `${name}: ${problem}`,
  },

  files: {
    taken: 'pictures (JPEG, PNG, WebP, GIF, AVIF), PDF, MP4 and WebM, MP3, plain text, and captions (WebVTT)',
    empty: 'That file is empty.',
    large: (megabytes: number) => `That file is larger than ${megabytes} MB. Make it smaller.`,
    otherKind: (mediaType: string, taken: string) =>
      `By its content that is ${mediaType}, which is not taken. Files can be ${taken}.`,
    damaged: 'That picture can’t be read: it is damaged, or larger than 60 megapixels.',
    unknown: (taken: string) => `What that file is can’t be made out. Files can be ${taken}.`,
    markup:
      'That is markup (SVG, HTML or XML), which could run things in a browser. Send a picture or a PDF of it.',
    noCaptions: 'Those are no captions: a WebVTT file begins with the word WEBVTT.',
  },

  shop: {
    title: 'Shop',
    nothing: 'There is nothing to buy here just now.',
    brings: (what: string) => `Brings you ${what}.`,
    level: (name: string) => `level ${name}`,
    role: (name: string) => `the role ${name}`,
    group: (name: string) => `a place in ${name}`,
    course: (name: string, days: number | null) =>
      `the course ${name}${days === null ? '' : `, for ${days} days`}`,
    seat: 'a seat',
    has: 'You have this.',
    soldOut: 'Sold out.',
    freeAtFirst: (days: number) => `${days} days free at first`,
    firstFree: (days: number) => `, the first ${days} days free`,
    buy: 'Buy',
    buyTitle: (product: string) => `Buy ${product}`,
    hasAlready: (product: string) => `You have ${product} already.`,
    isSoldOut: 'It is sold out.',
    noTill: 'Nothing can be paid here just now. Come back later.',
    goBack: 'Go back',
    price: 'Price',
    account: 'Have an account? [Sign in first]. Otherwise paying makes you one.',
    name: 'Your name',
    email: 'Your mail address',
    haveVoucher: 'I have a voucher',
    voucher: 'Voucher',
    pay: 'Go on to pay',
    choosePrice: 'Choose a price.',
    longVoucher: 'That is too long for a voucher.',
    priceGone: 'That price is not to be had any more. Choose another.',
    priceChanged: (price: string) => `The price has changed: it is ${price} now.`,
    noAnswer: 'The till does not answer just now. Nothing was bought; try again in a minute.',
    hasAccount: 'There is an account with this mail address. Sign in first, and come back here.',
    noVoucher: 'That is no voucher for this, or it is used up.',
    full: 'Every seat is taken, or held for somebody who is paying just now.',
    elsewhere: 'You are buying this in another window just now. Finish there, or wait a moment.',
  },

  order: {
    waiting: 'Waiting for the till',
    waitingText: (what: string) =>
      `The till has not told us yet that ${what} is paid. This page looks again by itself, and leads you back as soon as it has.`,
    notPaidYet: (sum: string) => `Not paid yet? [Go on to pay ${sum}]`,
    declined: 'It was not paid',
    declinedText: 'The payment did not come through, and nothing was taken. What you chose is kept.',
    expired: 'It was not paid in time',
    expiredText: (what: string) =>
      `${what} was not paid in time, and nothing was taken. You can begin again.`,
    'given back': 'Your money comes back',
    givenBackText: (what: string) =>
      `${what} could not be given to you after all. You get back everything that you paid; a letter says why.`,
    'sign in': 'It is paid',
    signInText:
      'What you bought belongs to the account with your mail address. Sign in to it, and it is open to you.',
    again: 'Try again',
    back: 'Back to where you were',
  },

  purchases: {
    title: 'What you have',
    onWalk: 'What somebody bought is their own: a walk doesn’t show it.',
    none: 'You have not bought anything yet.',
    more: 'What else there is',
    card: 'Leave another card',
    stop: 'Stop it',
    changePlan: 'Change for another plan',
    changeTo: (plan: string) => `Change to ${plan}`,
    receipts: 'Receipts',
    forGood: 'Yours for good.',
    forGoodSince: (day: string) => `Yours for good, since ${day}.`,
    endedOn: (day: string) => `Ended on ${day}.`,
    yoursUntil: (day: string) => `Yours until ${day}.`,
    notPaid: 'Not paid yet.',
    refunded: 'Given back, and ended.',
    disputed: 'Closed while a payment is disputed.',
    ended: 'Ended.',
    late: (day: string) =>
      `A payment did not come through. It stays yours until ${day}; leave another card and it goes on.`,
    stopped: (day: string) => `Stopped. It stays yours until ${day}.`,
    paidUntil: (day: string, then: string | null) =>
      `Paid until ${day}${then === null ? '' : `, then ${then}`}.`,
    trialUntil: (day: string, then: string | null) =>
      `On trial until ${day}${then === null ? '' : `, then ${then}`}.`,
    nothingToChange: 'It is not paid again, so there is nothing to change.',
    noAnswer: 'The till does not answer just now. Nothing was changed; try again in a minute.',
    planGone: 'That plan is not to be had any more. Choose another.',
    planChanged: (sum: string) => `That has changed since you looked: ${sum}`,
    planUnderWay: 'You are buying that already. Finish there, or wait a moment.',
    planAtEnd: (day: string, price: string) =>
      `Nothing is paid now. You keep what you have until ${day}; then it is ${price}.`,
    planOwed: (owed: string) => `You pay ${owed} now.`,
    planOwedLess: (owed: string, price: string, credit: string) =>
      `You pay ${owed} now: ${price}, less ${credit} for the days that are left of your plan.`,
    planFree: (credit: string, days: number) =>
      `Nothing is paid now: the ${credit} left of your plan pay for ${days} days.`,
    receipt: (number: string) => `Receipt ${number}`,
    from: 'From',
    for: 'For',
    paidOn: 'Paid on',
    what: 'What',
    time: 'Time',
    period: (from: string, until: string) => `${from} to ${until}`,
    sum: 'Sum',
    givenBack: 'Given back since',
    everything: 'Everything that you have',
  },

  // Said in letters by what they are about.
  mail: {
    tomorrow: 'tomorrow',
    inDays: (days: number) => `in ${days} days`,
    lastSeat: (product: string) => `The last seat of ${product} went to somebody else while you paid.`,
    hadAlready: (product: string) => `You had ${product} already.`,
  },

  letters: {
    signUp: {
      subject: 'Signing up at {site}',
      text: CODE,
    },
    signUpClosed: {
      subject: 'Signing up at {site}',
      text: 'Somebody, perhaps you, wanted to sign up with this mail address. Accounts are for those who were invited, and this mail address was not. If you think that it should be, ask whoever looks after the site.',
    },
    signUpAgain: {
      subject: 'Signing up at {site}',
      text: 'Somebody, perhaps you, wanted to sign up with this mail address. You have an account already: sign in with it, or ask for a new password if you forgot yours.',
    },
    newPassword: {
      subject: 'A new password for {site}',
      text: CODE,
    },
    noAccount: {
      subject: 'A new password for {site}',
      text: 'Somebody, perhaps you, asked for a new password. There is no account with this mail address; sign up if you want one.',
    },
    invitation: {
      subject: '{by} invites you to {site}',
      text: `{name}, there is a place for you at {site}.

Choose a password, and you are in: {link}

The link is yours alone, and good until {until}. After that, ask {by} for another; an answer to this letter goes there.`,
    },
    receipt: {
      subject: 'Receipt: {product}, {sum}',
      text: `On {day} you paid {sum} for {product}.

It is good until {until}.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    free: {
      subject: '{product} is yours',
      text: `{product} is yours, and you paid nothing for it.

It is good until {until}.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    trial: {
      subject: '{product} is yours to try',
      text: `You can try {product} until {until}, and pay nothing for it.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    late: {
      subject: 'A payment for {product} did not come through',
      text: `We could not take {sum} for {product}.

It stays yours until {until}. It is tried again; if your card has changed, leave another one.

${YOURS}`,
    },
    reminder: {
      subject: '{product} ends {when}',
      text: `{sum} for {product} still did not come through. Leave another card and it goes on as before.

${YOURS}`,
    },
    ended: {
      subject: '{product} has ended',
      text: `{product} has ended, and with it what it gave you.

${YOURS}`,
    },
    tomorrow: {
      subject: '{product} is tomorrow',
      text: `{product} is tomorrow, {day}. You have a place, {name}.

${YOURS}`,
    },
    stopped: {
      subject: '{product} is stopped',
      text: `{product} will not be paid again.

It stays yours until {until}.

${YOURS}`,
    },
    moneyBack: {
      subject: '{sum} come back to you',
      text: `We gave back {sum} of what you paid for {product}.

{product} stays yours.

${YOURS}`,
    },
    moneyBackEnded: {
      subject: '{sum} come back to you',
      text: `We gave back {sum} of what you paid for {product}.

{product} has ended with it.

${YOURS}`,
    },
    disputed: {
      subject: '{product} is closed for now',
      text: `Your bank disputes a payment for {product}. Until that is settled it is closed.

${YOURS}`,
    },
    notGiven: {
      subject: 'What you paid for {product} comes back to you',
      text: `{why}

You get back everything that you paid for it. Nothing is left to do.

${YOURS}`,
    },
    accepted: {
      subject: '“{title}” is accepted',
      text: `What you handed in to “{title}” is accepted.

{words}

{link}`,
    },
    givenBack: {
      subject: '“{title}” came back to you',
      text: `What you handed in to “{title}” was given back. You can hand in another version.

{words}

{link}`,
    },
  },
};

/** Everything that Trivet says to visitors, in some language. */
export type Messages = typeof english;
