/** What the site as a whole is set to, as owners read and change it. */
import { z } from 'zod';
import { asId, COLOURS, type ItemId, LANGUAGES, languageTag, same, siteTitleOf } from '@/core';
import {
  JOURNAL_KEEPS,
  type Settings,
  type SiteLook,
  type SiteStarts,
  type SiteWords,
  updateItem,
  updateSettings,
} from '@/store';
import {
  id,
  languageShape,
  lookOf,
  lookShape,
  plainText,
  signUpShape,
  startsNow,
  startsOf,
  startsProblems,
  startsShape,
  timeZone,
  words,
  wordsShape,
} from '../forms';
import type { SiteState, Trivet } from '../running';
import { type Administrator, forgetOld, requirePermission } from '../running';
import { runningTill } from '../till';
import { contentOf } from '../view';
import { homePage, homeProblem, makeHome } from '../writing';

/** The settings that are for people to choose; the site's keys are not among them. */
export type OpenSettings = Pick<
  Settings,
  'timeZone' | 'language' | 'journal' | 'journalDays' | 'graceDays'
> & {
  /** What the site is called, and what it says of itself. */
  readonly site: SiteWords & { readonly name: string; readonly signIn: string };
  readonly look: SiteLook;
  readonly starts: SiteStarts;
  /** Its first page; null where there is none. */
  readonly home: ItemId | null;
  /** Who may make an account. */
  readonly signUp: { readonly who: Settings['signUp']; readonly domains: readonly string[] };
  /** What is not for people to choose here. */
  readonly given?: {
    /** The languages that Trivet speaks to visitors. */
    readonly languages: readonly { readonly tag: string; readonly name: string }[];
    /** What takes the money: nothing, the till that stands in, or a real one. */
    readonly till: 'none' | 'stand-in' | 'real';
  };
};

export function openSettings(trivet: Trivet, administrator: Administrator): OpenSettings {
  requirePermission(administrator, 'everything');
  const { journal, journalDays, graceDays, ...settings } = trivet.state.settings;
  const till = runningTill();
  const { outline, names } = trivet.state;
  return {
    site: {
      name: siteTitleOf(outline),
      signIn: contentOf(trivet.state, outline.root).body,
      ...settings.words,
    },
    look: settings.look ?? { ...COLOURS, picture: null },
    starts: startsNow(settings.starts, names),
    home: homePage(trivet.state)?.id ?? null,
    timeZone: settings.timeZone,
    language: settings.language,
    journal,
    journalDays,
    graceDays,
    signUp: { who: settings.signUp, domains: settings.signUpDomains },
    given: {
      languages: LANGUAGES.map(({ tag, name }) => ({ tag, name })),
      till: till === null ? 'none' : till.standIn ? 'stand-in' : 'real',
    },
  };
}

const form = z.strictObject({
  timeZone,
  journal: z.enum(JOURNAL_KEEPS, 'Choose what the journal keeps.'),
  journalDays: z
    .int('Write a whole number of days.')
    .min(1, 'The journal keeps at least a day.')
    .max(3650, 'The journal keeps at most 3650 days.'),
  graceDays: z
    .int('Write a whole number of days.')
    .min(0, 'Grace has no days, or some.')
    .max(90, 'Grace has at most 90 days.')
    .optional(),
  signUp: signUpShape.optional(),
  site: wordsShape.extend({ name: words(200, 'Give the site a name.'), signIn: plainText }).optional(),
  look: lookShape.optional(),
  starts: startsShape.optional(),
  language: z
    .string()
    .trim()
    .transform((tag) => languageTag(tag) ?? tag)
    .pipe(languageShape)
    .optional(),
  home: id.nullable().optional(),
});

/** Keeps the settings; answers what is wrong by field, or null. What the journal may no longer keep is forgotten at once. */
export async function editSettings(
  trivet: Trivet,
  administrator: Administrator,
  input: unknown,
  now: Date,
): Promise<Readonly<Record<string, string>> | null> {
  requirePermission(administrator, 'everything');
  const parsed = form.safeParse(input);
  if (!parsed.success)
    return Object.fromEntries(
      parsed.error.issues.map(({ path, message }) => [path.join('.') || 'form', message]),
    );
  const { graceDays, signUp, site, look, starts, language, home = null, ...rest } = parsed.data;
  const wrong = {
    ...(look && pictureProblem(trivet.state, look.picture)),
    ...(starts && startsProblem(starts, trivet.state)),
    ...(home !== null && homeProblemAt(trivet.state, home)),
  };
  if (Object.keys(wrong).length > 0) return wrong;
  await trivet.journal.flush(trivet, now);
  const chosen = {
    ...rest,
    ...(site && { words: { foot: site.foot, missing: site.missing } }),
    ...(look && { look: isOwn(look) ? lookOf(look) : null }),
    ...(starts && { starts: startsOf(starts) }),
    ...(graceDays !== undefined && { graceDays }),
    ...(language !== undefined && { language }),
    ...(signUp && { signUp: signUp.who, signUpDomains: signUp.domains }),
  };
  await trivet.change((state) =>
    trivet.db.transaction(async (tx) => {
      await updateSettings(tx, chosen);
      if (site) await callSite(tx, state, site);
      // Somebody may have taken the page away since.
      if (home !== null && homeProblem(state, home) === null) await makeHome(tx, state, home);
    }),
  );
  await forgetOld(trivet, trivet.state, now);
  return null;
}

/** Whether a look is another than what every site looks like at first. */
const isOwn = ({ picture, ...colours }: z.output<typeof lookShape>): boolean =>
  picture !== null || !same(colours, COLOURS);

function pictureProblem({ outline }: SiteState, picture: string | null): Readonly<Record<string, string>> {
  const file = picture === null ? null : outline.items.get(asId<ItemId>(picture));
  return file === null || (file?.kind === 'file' && file.mediaType.startsWith('image/'))
    ? {}
    : { 'look.picture': 'There is no such picture any more. Choose another.' };
}

function startsProblem(
  starts: z.output<typeof startsShape>,
  { names }: SiteState,
): Readonly<Record<string, string>> {
  const [problem] = startsProblems(starts, names);
  return problem === undefined ? {} : { starts: problem };
}

function homeProblemAt(state: SiteState, home: string): Readonly<Record<string, string>> {
  const problem = homeProblem(state, home);
  return problem === null || homePage(state)?.id === home ? {} : { home: problem };
}

/** Writes what the site is called, and what stands beside signing in. */
async function callSite(
  tx: Parameters<typeof updateSettings>[0],
  state: SiteState,
  { name, signIn }: { readonly name: string; readonly signIn: string },
): Promise<void> {
  const root = state.outline.items.get(state.outline.root);
  if (!root) return;
  const content = contentOf(state, root.id);
  if (root.title === name && content.body === signIn) return;
  await updateItem(tx, { item: { ...root, title: name }, content: { ...content, body: signIn } });
}
