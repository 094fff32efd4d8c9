/** Everything that Trivet itself says to visitors, in German; see `english.ts`. */
import { onceFor } from '../once';
import { decimalsOf, type Money } from '../selling/money';
import type { Price } from '../selling/terms';
import type { Day } from '../site/day';
import type { Messages } from './english';
import { numbersIn } from './numbers';

const MONTHS = [
  'Januar',
  'Februar',
  'März',
  'April',
  'Mai',
  'Juni',
  'Juli',
  'August',
  'September',
  'Oktober',
  'November',
  'Dezember',
];

const number = (value: number): string => numbersIn('de').format(value);

const amountsIn = onceFor((currency: string) => {
  const decimals = decimalsOf(currency);
  return new Intl.NumberFormat('de', {
    style: 'currency',
    currency,
    currencyDisplay: 'narrowSymbol',
    minimumFractionDigits: decimals,
    maximumFractionDigits: decimals,
  });
});

const day = (date: Day): string =>
  `${Number(date.slice(8))}. ${MONTHS[Number(date.slice(5, 7)) - 1]} ${Number(date.slice(0, 4))}`;

const money = ({ amount, currency }: Money): string =>
  amountsIn(currency).format(amount / 10 ** decimalsOf(currency));

const price = (one: Money & Pick<Price, 'months'>): string =>
  one.months === null ? money(one) : `${money(one)} ${everyMonths(one.months)}`;

const everyMonths = (months: number): string =>
  months === 1
    ? 'im Monat'
    : months === 12
      ? 'im Jahr'
      : months % 12 === 0
        ? `alle ${months / 12} Jahre`
        : `alle ${months} Monate`;

const listed = (parts: readonly string[], word: string): string =>
  parts.length < 2 ? (parts[0] ?? '') : `${parts.slice(0, -1).join(', ')} ${word} ${parts.at(-1)}`;

const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;

const YOURS = 'Was Sie haben und was Sie bezahlt haben: {link}';
const RENEWED = 'Am {next} wird wieder bezahlt: {price}.';
const PASSWORD =
  'Sie haben jetzt ein Konto mit dieser Mailadresse. Wählen Sie dafür ein Passwort: {password}';
const CODE = `Ihr Code ist {code}. Er gilt eine Viertelstunde.

Wenn Sie ihn nicht angefordert haben, brauchen Sie nichts zu tun.`;

export const german: Messages = {
  tag: 'de',
  name: 'Deutsch',

  day,
  money,
  price,
  all: (parts) => listed(parts, 'und'),
  either: (parts) => listed(parts, 'oder'),
  number,
  decimal: (value, digits) => value.toFixed(digits).replace('.', ','),

  frame: {
    skip: 'Zum Text',
    announcements: 'Ankündigungen',
    menu: 'Menü',
    search: 'Suche',
    before: 'Vor dem Text',
    after: 'Nach dem Text',
    beside: 'Neben dem Text',
    foot: 'Am Fuß der Seite',
    desk: 'Desk',
    below: (title) => `Unter ${title}`,
    locked: 'verschlossen',
    closed: 'Nicht für Sie geöffnet',
    closedHeading: 'Das ist für Sie nicht geöffnet',
    nothing: 'Hier ist nichts',
    nothingHeading: 'Unter dieser Adresse ist nichts',
    nothingText: 'Sehen Sie nach, ob sich in der Adresse ein Fehler findet, oder beginnen Sie oben im Menü.',
    back: 'Zurück',
    onWalk: 'Auf einem Rundgang wird nichts gesendet. Drücken Sie den Knopf, um zu sehen, was er täte.',
    unreadable:
      'Das Formular war nicht zu lesen. Füllen Sie es hier noch einmal aus und senden Sie es wieder.',
    tooOften: (minutes) =>
      `Das wurde zu oft versucht. Warten Sie ${minutes === 1 ? 'eine Minute' : `${minutes} Minuten`} und versuchen Sie es dann wieder.`,
    cutOff:
      'Was Ihnen offensteht, lässt sich gerade nicht nachsehen. Warten Sie einige Sekunden und versuchen Sie es dann wieder.',
    busy: 'Das tun gerade zu viele zugleich. Warten Sie einige Sekunden und versuchen Sie es dann wieder.',
  },

  lists: {
    previous: 'Davor',
    next: 'Danach',
    more: (category) => (category === null ? 'Weitere Beiträge' : `Mehr in ${category}`),
    tagged: (tag) => `Mit dem Schlagwort ${tag}`,
    newer: 'Neuere',
    older: 'Ältere',
    feed: 'Als Feed',
    all: 'Alle',
    latest: (site) => `Das Neueste von ${site}`,
    search: (question) => `Suche: ${question}`,
    lookFor: 'Wonach gesucht wird',
    look: 'Suchen',
    noHits: 'Nichts, was Sie öffnen können, enthält diese Wörter. Versuchen Sie es mit weniger oder anderen.',
    hits: (count, more) =>
      `${counted(count, 'Stelle', 'Stellen')}${more ? ' und mehr: nehmen Sie weitere Wörter dazu' : ''}`,
    inWords: 'In Worten',
  },

  steps: {
    signIn: 'Anmelden',
    signUp: 'Konto anlegen',
    passphrase: 'Losungswort eingeben',
    follow: (group) => `${group} folgen`,
    leave: (group) => `${group} verlassen`,
    signInToFollow: 'Zum Folgen anmelden',
    signInToFollowOf: (group) => `Anmelden, um ${group} zu folgen`,
    buy: (product, amount) => `${product} kaufen${amount === null ? '' : `, ${amount}`}`,
  },

  signIn: {
    title: 'Anmelden',
    already: (name) =>
      `Sie sind als ${name} angemeldet. Melden Sie sich als jemand anderes an, oder [gehen Sie zur ersten Seite].`,
    notForYou: (name) =>
      `Sie sind als ${name} angemeldet, und was Sie aufgerufen haben, ist für dieses Konto nicht geöffnet. Melden Sie sich als jemand anderes an, oder [gehen Sie zur ersten Seite].`,
    back: 'Danach sind Sie wieder da, wo Sie waren.',
    email: 'Mailadresse',
    password: 'Passwort',
    button: 'Anmelden',
    signUp: 'Konto anlegen',
    forgot: 'Ich habe mein Passwort vergessen',
    noEmail: 'Geben Sie Ihre Mailadresse ein.',
    oneEmail: 'Geben Sie eine Mailadresse ein.',
    longEmail: 'Das ist zu lang für eine Mailadresse.',
    noPassword: 'Geben Sie Ihr Passwort ein.',
    onePassword: 'Geben Sie ein Passwort ein.',
    longPassword: 'Das ist zu lang für ein Passwort.',
    wrong: 'Diese Mailadresse und dieses Passwort gehören nicht zusammen.',
  },

  passphrase: {
    title: 'Losungswort',
    lead: 'Geben Sie das Losungswort ein, das man Ihnen gegeben hat.',
    label: 'Losungswort',
    button: 'Weiter',
    none: 'Geben Sie das Losungswort ein.',
    one: 'Geben Sie ein Losungswort ein.',
    long: 'Das ist zu lang für ein Losungswort.',
    wrong: 'Das ist kein Losungswort dieser Website.',
  },

  signUp: {
    title: 'Konto anlegen',
    lead: 'Wir senden einen Code an Ihre Mailadresse, und zu nichts anderem benutzen wir sie.',
    another: (name) => `Sie sind als ${name} angemeldet. Hier legen Sie ein weiteres Konto an.`,
    invitedOnly: 'Konten sind für Eingeladene: geben Sie die Mailadresse ein, an die die Einladung ging.',
    domainsOnly: (domains) =>
      `Konten sind für alle mit einer Mailadresse bei ${domains} und für Eingeladene.`,
    name: 'Ihr Name',
    password: 'Passwort, mindestens 8 Zeichen',
    newPassword: 'Neues Passwort, mindestens 8 Zeichen',
    button: 'Code senden',
    account: 'Ich habe ein Konto',
    noName: 'Geben Sie Ihren Namen ein.',
    oneName: 'Geben Sie einen Namen ein.',
    longName: 'Ein Name hat höchstens 200 Zeichen.',
    badEmail: 'Geben Sie eine Mailadresse ein wie name@ort.example.',
    longEmail: 'Das ist zu lang.',
    onePassword: 'Wählen Sie ein Passwort.',
    shortPassword: 'Ein Passwort hat mindestens 8 Zeichen.',
  },

  code: {
    title: 'Ihr Code',
    lead: 'Wenn alles stimmt, ist eine Mail mit sechs Ziffern zu Ihnen unterwegs. Sie gelten eine Viertelstunde.',
    label: 'Sechs Ziffern',
    finish: 'Fertig',
    keep: 'Dieses Passwort behalten',
    again: 'Noch einmal senden',
    anew: 'Von vorn beginnen',
    none: 'Geben Sie den Code ein.',
    long: 'Der Code hat sechs Ziffern.',
    over: 'Dieser Code gilt nicht mehr. Lassen Sie sich einen neuen senden.',
    fifth: 'Das war zum fünften Mal nicht der Code. Lassen Sie sich einen neuen senden.',
    wrong: (left) =>
      `Das ist nicht der Code. Sie können es noch ${left === 1 ? 'einmal' : `${left}-mal`} versuchen.`,
    sentOften:
      'Er wurde dreimal gesendet. Sehen Sie unter den unerwünschten Mails nach, oder beginnen Sie von vorn.',
    unreadable: 'Das Formular war nicht zu lesen. Beginnen Sie von vorn.',
    gone: 'Dieses Konto gibt es nicht mehr. Legen Sie ein neues an.',
  },

  reset: {
    title: 'Neues Passwort',
    heading: 'Ein neues Passwort',
    lead: 'Geben Sie Ihre Mailadresse ein. Wenn es ein Konto mit ihr gibt, geht ein Code dorthin.',
  },

  invited: {
    title: 'Sie sind eingeladen',
    heading: (name) => `Hier ist ein Platz für Sie, ${name}`,
    lead: (email) => `Wählen Sie ein Passwort. Von da an melden Sie sich mit ihm und ${email} an.`,
    button: 'Eintreten',
    over: 'Diese Einladung gilt nicht mehr',
    overText:
      'Sie gilt eine Woche und einmal, und nur die neueste zählt. Wer Sie eingeladen hat, kann eine weitere senden.',
    password: 'Sie haben schon ein Passwort? [Melden Sie sich an], oder [wählen Sie ein neues].',
  },

  owner: {
    title: 'Diese Website übernehmen',
    newcomer: (email) => `Damit entsteht ein Konto für ${email}, dem der ganze Desk offensteht.`,
    known: (name) =>
      `${name}, wählen Sie ein neues Passwort. Der ganze Desk steht Ihnen dann offen, und überall sonst sind Sie abgemeldet.`,
    button: 'Übernehmen',
  },

  account: {
    title: 'Ihr Konto',
    name: 'Name',
    email: 'Mailadresse',
    level: 'Stufe',
    groups: 'Gruppen',
    none: 'keine',
    keep: 'Behalten',
    keys: 'Ihr eigener Feed und Schlüssel für Apps',
    empty: 'Nicht ausgefüllt',
    yes: 'ja',
    no: 'nein',
    oneValue: 'Geben Sie einen einzigen Wert ein, und keinen langen.',
    field: {
      text: (name) => `${name} ist ein Text.`,
      long: (name, most) => `${name} hat höchstens ${most} Zeichen.`,
      choice: (name, choices) => `${name} ist eines von ${choices.join(', ')}.`,
      number: (name) => `${name} ist eine Zahl.`,
      date: (name) => `${name} ist ein Tag. Schreiben Sie ihn so: 2026-12-01.`,
      yesNo: (name) => `${name} ist ja oder nein.`,
    },
  },

  keys: {
    title: 'Ihr Feed und Ihre Schlüssel',
    lead: 'Ein Feedleser oder eine App bekommt, was Sie auf der Website bekommen. Wer einen Schlüssel hat, liest wie Sie; behalten Sie ihn für sich, und nehmen Sie zurück, was Sie nicht mehr brauchen.',
    feedAddress: 'Die Adresse Ihres Feeds:',
    token: 'Der Schlüssel, als Bearer-Token:',
    once: 'Er wird nur dieses eine Mal gezeigt. Bewahren Sie ihn jetzt auf.',
    what: 'Wofür er ist',
    either: 'Feed oder App',
    feed: 'mein eigener Feed',
    app: 'eine App',
    ofFeed: 'Feed',
    ofApp: 'App',
    make: 'Schlüssel machen',
    takeBack: 'Zurücknehmen',
    takeBackOf: (name) => `${name} zurücknehmen`,
    noUse: 'Wählen Sie, wofür der Schlüssel ist.',
    oneName: 'Geben Sie ihm einen Namen.',
    noName: 'Geben Sie ihm einen Namen, damit Sie ihn später erkennen.',
    longName: 'Ein Name hat höchstens 100 Zeichen.',
    tooMany: (most) => `Sie haben ${most} Schlüssel. Nehmen Sie erst einige zurück.`,
  },

  form: {
    optional: '(wenn Sie mögen)',
    choose: 'Wählen …',
    missing: 'Es fehlt noch etwas. Bisher wurde nichts gesendet.',
    tick: 'Setzen Sie hier ein Häkchen, um weiterzukommen.',
    fillIn: 'Füllen Sie das aus.',
    email: 'Schreiben Sie eine Mailadresse wie name@ort.example.',
    choice: 'Wählen Sie eines davon.',
  },

  course: {
    label: 'Was zu tun ist',
    progress: 'Wie weit Sie sind',
    done: (done, of) => `${done} von ${of} erledigt`,
    goOn: (title) => `Weiter: ${title}`,
    begin: (title) => `Beginnen: ${title}`,
    enrol: 'Einschreiben',
    signInToEnrol: 'Zum Einschreiben anmelden',
    types: { reading: 'Lesestoff', video: 'Video', quiz: 'Quiz', 'hand-in': 'Einreichung' },
    isDone: 'erledigt',
    says: {
      reading: 'Das habe ich gelesen',
      video: 'Das habe ich gesehen',
      quiz: null,
      'hand-in': null,
    },
    watchedNow: 'Das haben Sie gesehen, und damit ist es erledigt.',
    youAreDone: 'Das haben Sie erledigt.',
    youAreDoneWith: (score) => `Das haben Sie erledigt: ${number(score)} %.`,
    around: 'In diesem Kurs',
    previous: 'Davor',
    next: 'Weiter',
    nextLocked: 'Weiter, und noch verschlossen',
  },

  quiz: {
    signIn: 'Zum Mitmachen anmelden',
    toQuestions: 'Zu den Fragen',
    yourAttempts: 'Ihre Versuche',
    questions: (count) => counted(count, 'Frage', 'Fragen'),
    minutes: (count) => counted(count, 'Minute', 'Minuten'),
    attempts: (count) => counted(count, 'Versuch', 'Versuche'),
    points: (count) => counted(count, 'Punkt', 'Punkte'),
    noHurry: 'ohne Eile',
    passMark: (percent) => `bestanden mit ${number(percent)} %`,
    question: (number) => `Frage ${number}`,
    answerTo: (number) => `Antwort auf Frage ${number}`,
    how: {
      one: 'Wählen Sie eines.',
      several: 'Wählen Sie alles, was stimmt.',
      number: 'Schreiben Sie eine Zahl.',
      text: 'Schreiben Sie ein, zwei Wörter.',
      order: 'Geben Sie jedem seinen Platz: 1 kommt zuerst.',
      pairs: 'Wählen Sie, was jeweils dazugehört.',
    },
    notNumber: 'Schreiben Sie eine Zahl wie 12 oder 12,5 und sonst nichts.',
    twice: (place) => `Zwei davon stehen auf Platz ${place}. Geben Sie jedem einen eigenen.`,
    notAnswered: 'Hier fehlt noch eine Antwort.',
    unreadableAnswer: 'Das war nicht zu lesen. Antworten Sie noch einmal.',
    longAnswer: (most) => `Eine Antwort hat höchstens ${most} Zeichen. Was vorher da stand, ist geblieben.`,
    notOffered: 'Das stand nicht zur Wahl. Antworten Sie noch einmal.',
    attemptOf: (number, of) => `Versuch ${number}${of === null ? '' : ` von ${of}`}`,
    until: (clock) => `bis ${clock} Uhr`,
    clockOn: (clock, date) => `${clock} am ${date}`,
    handIn: 'Abgeben',
    handInAsItIs: 'So abgeben, wie es ist',
    keep: 'Aufheben und später weitermachen',
    clockRuns: 'Die Uhr läuft ab dem Beginn, auch wenn diese Seite geschlossen ist.',
    begin: 'Beginnen',
    again: (left) => `Noch einmal versuchen: ${counted(left, 'Versuch', 'Versuche')} übrig`,
    againFrom: (when) => `Ab ${when} können Sie es wieder versuchen.`,
    noneLeft: 'Sie haben alle Ihre Versuche gemacht.',
    nothingAsked: 'Es gibt noch keine Fragen.',
    byQuestion: 'Frage für Frage',
    lastByQuestion: 'Ihr letzter Versuch, Frage für Frage',
    passed: 'bestanden',
    notPassed: 'nicht bestanden',
    timeUp: '(die Zeit war um; es zählt, was bis dahin da war)',
    about: 'Über dieses Quiz',
    said: 'Ihre Antwort',
    rightIs: 'Richtig ist',
    giveOrTake: (value, tolerance) => `${number(value)}, um ${number(tolerance)} mehr oder weniger`,
    worth: {
      right: 'Richtig',
      'partly right': 'Teilweise richtig',
      wrong: 'Nicht richtig',
      'not answered': 'Nicht beantwortet',
    },
    notes: {
      kept: 'Ihre Antworten sind aufgehoben. Sie können jetzt weitermachen oder an einem anderen Tag.',
      'to mend':
        'Es ist noch nicht abgegeben: sehen Sie nach, was unten angestrichen ist. Ihre Antworten sind aufgehoben.',
      unreadable:
        'Das war nicht zu lesen, und nichts wurde geändert. Ihre früheren Antworten sind aufgehoben.',
      over: 'Dieser Versuch nimmt keine Antworten mehr an.',
    },
    keptNow: 'Aufgehoben, wie Sie es ausgefüllt haben.',
    notAllKept: 'Nicht alles war aufzuheben. Drücken Sie „Aufheben“, um zu sehen, warum.',
    offline: 'Gerade gibt es keine Verbindung. Mit der nächsten Antwort wird es wieder aufgehoben.',
    left: 'übrig',
  },

  handIn: {
    signIn: 'Zum Einreichen anmelden',
    toHandIn: 'Einreichen, und was daraus wurde',
    yours: 'Was Sie eingereicht haben',
    text: 'ein Text',
    files: (count) => counted(count, 'Datei', 'Dateien'),
    upTo: (files) => `bis zu ${files}`,
    kinds: {
      pictures: 'Bilder',
      pdf: 'PDF',
      texts: 'einfacher Text',
      films: 'Videos',
      sounds: 'Ton',
    },
    each: (megabytes) => `je ${megabytes} MB`,
    byTutor: 'wird durchgesehen',
    handedIn:
      'Es ist eingereicht und wird durchgesehen; bis dahin können Sie noch eine neuere Fassung an seine Stelle setzen.',
    chooseAgain: 'Was Sie geschrieben haben, ist noch da; wählen Sie Ihre Dateien noch einmal.',
    askTutor: 'Öfter kann man hier nicht einreichen. Fragen Sie Ihre Kursleitung.',
    what: 'Was Sie einreichen möchten',
    atMost: (files) => `Dateien, höchstens ${files}`,
    aFile: 'Eine Datei',
    instead: 'Stattdessen einreichen',
    button: 'Einreichen',
    about: 'Über diese Einreichung',
    version: (number) => `Fassung ${number}`,
    wrote: 'Was Sie geschrieben haben',
    became: {
      waiting: 'wartet auf Durchsicht',
      replaced: 'von einer neueren ersetzt',
      accepted: 'angenommen',
      'given back': 'zurückgegeben',
    },
    unreadable: 'Das war nicht zu lesen, und nichts wurde eingereicht. Senden Sie es noch einmal.',
    tooLarge: (megabytes) =>
      `Das ist größer, als hier angenommen wird${megabytes === null ? '' : `: höchstens ${megabytes} MB je Datei`}. Nichts wurde eingereicht.`,
    allTooLarge: (megabytes) =>
      `Zusammen wäre alles, was Sie eingereicht haben, größer als ${megabytes} MB. Machen Sie Ihre Dateien kleiner.`,
    doneAlready: 'Das haben Sie schon erledigt. Es gibt nichts mehr einzureichen.',
    tooOften: 'Öfter kann man hier nicht einreichen.',
    elsewhere: 'Sie haben im selben Augenblick anderswo etwas eingereicht. Sehen Sie erst dort nach.',
    longText: (most) => `Ein Text hat höchstens ${most} Zeichen. Kürzen Sie ihn.`,
    noText: 'Hier wird nichts geschrieben: reichen Sie eine Datei ein.',
    noFiles: 'Hier werden keine Dateien angenommen: schreiben Sie etwas.',
    tooMany: (most) =>
      `Höchstens ${counted(most, 'Datei', 'Dateien')} können eingereicht werden. Lassen Sie einige weg.`,
    nothing: 'Schreiben Sie etwas, oder wählen Sie eine Datei.',
    noFile: 'Wählen Sie eine Datei zum Einreichen.',
    largeFile: (name, megabytes) => `${name} ist größer als ${megabytes} MB. Machen Sie sie kleiner.`,
    otherKind: (name, kinds) => `${name} ist nichts von dem, was hier angenommen wird: ${kinds}.`,
    badFile: (name, problem) => `${name}: ${problem}`,
  },

  files: {
    taken:
      'Bilder (JPEG, PNG, WebP, GIF, AVIF), PDF, MP4 und WebM, MP3, einfacher Text und Untertitel (WebVTT)',
    empty: 'Diese Datei ist leer.',
    large: (megabytes) => `Diese Datei ist größer als ${megabytes} MB. Machen Sie sie kleiner.`,
    otherKind: (mediaType, taken) =>
      `Ihrem Inhalt nach ist das ${mediaType}, und das wird nicht angenommen. Angenommen werden ${taken}.`,
    damaged: 'Dieses Bild ist nicht zu lesen: es ist beschädigt oder größer als 60 Megapixel.',
    unknown: (taken) => `Was für eine Datei das ist, ist nicht zu erkennen. Angenommen werden ${taken}.`,
    markup:
      'Das ist Markup (SVG, HTML oder XML), das in einem Browser etwas ausführen könnte. Senden Sie ein Bild oder ein PDF davon.',
    noCaptions: 'Das sind keine Untertitel: eine WebVTT-Datei beginnt mit dem Wort WEBVTT.',
  },

  shop: {
    title: 'Laden',
    nothing: 'Zurzeit gibt es hier nichts zu kaufen.',
    brings: (what) => `Darin enthalten: ${what}.`,
    level: (name) => `die Stufe ${name}`,
    role: (name) => `die Rolle ${name}`,
    group: (name) => `ein Platz in ${name}`,
    course: (name, days) => `der Kurs ${name}${days === null ? '' : `, ${days} Tage lang`}`,
    seat: 'ein Platz',
    has: 'Das haben Sie.',
    soldOut: 'Ausverkauft.',
    freeAtFirst: (days) => `die ersten ${days} Tage kostenlos`,
    firstFree: (days) => `, die ersten ${days} Tage kostenlos`,
    buy: 'Kaufen',
    buyTitle: (product) => `${product} kaufen`,
    hasAlready: (product) => `${product} haben Sie schon.`,
    isSoldOut: 'Es ist ausverkauft.',
    noTill: 'Zurzeit kann hier nichts bezahlt werden. Kommen Sie später wieder.',
    goBack: 'Zurück',
    price: 'Preis',
    account: 'Sie haben ein Konto? [Melden Sie sich erst an]. Sonst entsteht mit dem Bezahlen eines.',
    name: 'Ihr Name',
    email: 'Ihre Mailadresse',
    haveVoucher: 'Ich habe einen Gutschein',
    voucher: 'Gutschein',
    pay: 'Weiter zum Bezahlen',
    choosePrice: 'Wählen Sie einen Preis.',
    longVoucher: 'Das ist zu lang für einen Gutschein.',
    priceGone: 'Diesen Preis gibt es nicht mehr. Wählen Sie einen anderen.',
    priceChanged: (amount) => `Der Preis hat sich geändert: jetzt sind es ${amount}.`,
    noAnswer:
      'Die Kasse antwortet gerade nicht. Nichts wurde gekauft; versuchen Sie es in einer Minute wieder.',
    hasAccount:
      'Mit dieser Mailadresse gibt es ein Konto. Melden Sie sich erst an, und kommen Sie wieder her.',
    noVoucher: 'Das ist kein Gutschein dafür, oder er ist verbraucht.',
    full: 'Alle Plätze sind vergeben oder für jemanden freigehalten, der gerade bezahlt.',
    elsewhere:
      'Das kaufen Sie gerade in einem anderen Fenster. Machen Sie dort weiter, oder warten Sie kurz.',
  },

  order: {
    waiting: 'Wir warten auf die Kasse',
    waitingText: (what) =>
      `Die Kasse hat uns noch nicht gesagt, dass ${what} bezahlt ist. Diese Seite sieht von selbst wieder nach und führt Sie zurück, sobald es so ist.`,
    notPaidYet: (sum) => `Noch nicht bezahlt? [Weiter zum Bezahlen von ${sum}]`,
    declined: 'Es wurde nicht bezahlt',
    declinedText:
      'Die Zahlung kam nicht zustande, und nichts wurde abgebucht. Was Sie gewählt haben, ist noch da.',
    expired: 'Es wurde nicht rechtzeitig bezahlt',
    expiredText: (what) =>
      `${what} wurde nicht rechtzeitig bezahlt, und nichts wurde abgebucht. Sie können von vorn beginnen.`,
    'given back': 'Sie bekommen Ihr Geld zurück',
    givenBackText: (what) =>
      `${what} konnten wir Ihnen doch nicht geben. Sie bekommen alles zurück, was Sie bezahlt haben; warum, steht in einem Brief.`,
    'sign in': 'Es ist bezahlt',
    signInText:
      'Was Sie gekauft haben, gehört zum Konto mit Ihrer Mailadresse. Melden Sie sich an, und es ist für Sie geöffnet.',
    again: 'Noch einmal versuchen',
    back: 'Zurück dahin, wo Sie waren',
  },

  purchases: {
    title: 'Was Sie haben',
    onWalk: 'Was jemand gekauft hat, ist seine Sache: ein Rundgang zeigt es nicht.',
    none: 'Sie haben noch nichts gekauft.',
    more: 'Was es noch gibt',
    card: 'Eine andere Karte hinterlegen',
    stop: 'Beenden',
    changePlan: 'Gegen etwas anderes tauschen',
    changeTo: (plan) => `Zu ${plan} wechseln`,
    receipts: 'Quittungen',
    forGood: 'Das bleibt Ihnen.',
    forGoodSince: (date) => `Das bleibt Ihnen, seit ${date}.`,
    endedOn: (date) => `Am ${date} geendet.`,
    yoursUntil: (date) => `Für Sie bis ${date}.`,
    notPaid: 'Noch nicht bezahlt.',
    refunded: 'Zurückgezahlt und beendet.',
    disputed: 'Geschlossen, solange eine Zahlung strittig ist.',
    ended: 'Beendet.',
    late: (date) =>
      `Eine Zahlung kam nicht zustande. Bis ${date} bleibt es für Sie; hinterlegen Sie eine andere Karte, dann geht es weiter.`,
    stopped: (date) => `Beendet. Bis ${date} bleibt es für Sie.`,
    paidUntil: (date, then) => `Bezahlt bis ${date}${then === null ? '' : `, danach ${then}`}.`,
    trialUntil: (date, then) => `Auf Probe bis ${date}${then === null ? '' : `, danach ${then}`}.`,
    nothingToChange: 'Es wird nicht wieder bezahlt; da gibt es nichts zu ändern.',
    noAnswer:
      'Die Kasse antwortet gerade nicht. Nichts wurde geändert; versuchen Sie es in einer Minute wieder.',
    planGone: 'Das gibt es nicht mehr. Wählen Sie etwas anderes.',
    planChanged: (sum) => `Das hat sich geändert, seit Sie hingesehen haben: ${sum}`,
    planUnderWay: 'Das kaufen Sie schon. Machen Sie dort weiter, oder warten Sie kurz.',
    planAtEnd: (date, amount) =>
      `Jetzt wird nichts bezahlt. Bis ${date} behalten Sie, was Sie haben; danach sind es ${amount}.`,
    planOwed: (owed) => `Sie bezahlen jetzt ${owed}.`,
    planOwedLess: (owed, amount, credit) =>
      `Sie bezahlen jetzt ${owed}: ${amount}, weniger ${credit} für die übrigen Tage.`,
    planFree: (credit, days) =>
      `Jetzt wird nichts bezahlt: die übrigen ${credit} reichen für ${counted(days, 'Tag', 'Tage')}.`,
    receipt: (number) => `Quittung ${number}`,
    from: 'Von',
    for: 'Für',
    paidOn: 'Bezahlt am',
    what: 'Was',
    time: 'Zeit',
    period: (from, until) => `${from} bis ${until}`,
    sum: 'Summe',
    givenBack: 'Seither zurückgezahlt',
    everything: 'Alles, was Sie haben',
  },

  mail: {
    tomorrow: 'morgen',
    inDays: (days) => `in ${counted(days, 'Tag', 'Tagen')}`,
    lastSeat: (product) => `Der letzte Platz (${product}) ging an jemand anderes, während Sie bezahlten.`,
    hadAlready: (product) => `${product} hatten Sie schon.`,
  },

  letters: {
    signUp: { subject: 'Ein Konto bei {site}', text: CODE },
    signUpClosed: {
      subject: 'Ein Konto bei {site}',
      text: 'Jemand, vielleicht Sie, wollte mit dieser Mailadresse ein Konto anlegen. Konten sind für Eingeladene, und diese Mailadresse wurde nicht eingeladen. Wenn sie es sein sollte, wenden Sie sich an die Leute, die sich um die Website kümmern.',
    },
    signUpAgain: {
      subject: 'Ein Konto bei {site}',
      text: 'Jemand, vielleicht Sie, wollte mit dieser Mailadresse ein Konto anlegen. Sie haben schon eines: melden Sie sich damit an, oder lassen Sie sich ein neues Passwort geben, wenn Sie Ihres vergessen haben.',
    },
    newPassword: { subject: 'Ein neues Passwort für {site}', text: CODE },
    noAccount: {
      subject: 'Ein neues Passwort für {site}',
      text: 'Jemand, vielleicht Sie, hat um ein neues Passwort gebeten. Mit dieser Mailadresse gibt es kein Konto; legen Sie eines an, wenn Sie möchten.',
    },
    invitation: {
      subject: '{by} lädt Sie zu {site} ein',
      text: `{name}, bei {site} ist ein Platz für Sie.

Wählen Sie ein Passwort, und Sie sind da: {link}

Der Link ist nur für Sie und gilt bis {until}. Danach bitten Sie {by} um einen neuen; eine Antwort auf diesen Brief geht dorthin.`,
    },
    receipt: {
      subject: 'Quittung: {product}, {sum}',
      text: `Am {day} haben Sie {sum} für {product} bezahlt.

Es gilt bis {until}.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    free: {
      subject: '{product} gehört Ihnen',
      text: `{product} gehört Ihnen, und Sie haben nichts dafür bezahlt.

Es gilt bis {until}.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    trial: {
      subject: '{product} auf Probe',
      text: `Bis {until} können Sie {product} ausprobieren und bezahlen nichts dafür.

${RENEWED}

${PASSWORD}

${YOURS}`,
    },
    late: {
      subject: 'Eine Zahlung für {product} kam nicht zustande',
      text: `{sum} für {product} waren nicht abzubuchen.

Bis {until} bleibt es für Sie. Es wird wieder versucht; wenn Sie eine neue Karte haben, hinterlegen Sie sie.

${YOURS}`,
    },
    reminder: {
      subject: '{product} endet {when}',
      text: `{sum} für {product} sind noch immer nicht abzubuchen. Hinterlegen Sie eine andere Karte, dann geht es weiter wie bisher.

${YOURS}`,
    },
    ended: {
      subject: '{product} ist zu Ende',
      text: `{product} ist zu Ende, und damit, was dazugehörte.

${YOURS}`,
    },
    tomorrow: {
      subject: '{product} ist morgen',
      text: `{product} ist morgen, am {day}. Sie haben einen Platz, {name}.

${YOURS}`,
    },
    stopped: {
      subject: '{product} ist beendet',
      text: `{product} wird nicht wieder bezahlt.

Bis {until} bleibt es für Sie.

${YOURS}`,
    },
    moneyBack: {
      subject: 'Sie bekommen {sum} zurück',
      text: `Von dem, was Sie für {product} bezahlt haben, geben wir {sum} zurück.

{product} bleibt Ihnen.

${YOURS}`,
    },
    moneyBackEnded: {
      subject: 'Sie bekommen {sum} zurück',
      text: `Von dem, was Sie für {product} bezahlt haben, geben wir {sum} zurück.

{product} ist damit zu Ende.

${YOURS}`,
    },
    disputed: {
      subject: '{product} ist vorerst geschlossen',
      text: `Ihre Bank bestreitet eine Zahlung für {product}. Bis das geklärt ist, ist es geschlossen.

${YOURS}`,
    },
    notGiven: {
      subject: 'Was Sie für {product} bezahlt haben, bekommen Sie zurück',
      text: `{why}

Sie bekommen alles zurück, was Sie dafür bezahlt haben. Zu tun ist nichts.

${YOURS}`,
    },
    accepted: {
      subject: '„{title}“ ist angenommen',
      text: `Was Sie zu „{title}“ eingereicht haben, ist angenommen.

{words}

{link}`,
    },
    givenBack: {
      subject: '„{title}“ kam zu Ihnen zurück',
      text: `Was Sie zu „{title}“ eingereicht haben, wurde zurückgegeben. Sie können eine neue Fassung einreichen.

{words}

{link}`,
    },
  },
};
