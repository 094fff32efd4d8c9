/** What the site as a whole is set to, as owners read and change it. */
import { z } from 'zod';
import { JOURNAL_KEEPS, type Settings, updateSettings } from '@/store';
import { signUpShape, timeZone } from '../forms';
import type { Trivet } from '../running';
import { type Administrator, forgetOld, requirePermission } from '../running';
import { runningTill } from '../till';

/** The settings that are for people to choose; the site's keys are not among them. */
export type OpenSettings = Pick<Settings, 'timeZone' | 'journal' | 'journalDays' | 'graceDays'> & {
  /** Who may make an account. */
  readonly signUp: { readonly who: Settings['signUp']; readonly domains: readonly string[] };
  /** What takes the money: nothing, the till that stands in, or a real one. Not for people to choose here. */
  readonly till?: 'none' | 'stand-in' | 'real';
};

export function openSettings(trivet: Trivet, administrator: Administrator): OpenSettings {
  requirePermission(administrator, 'everything');
  const { journal, journalDays, graceDays, ...settings } = trivet.state.settings;
  const till = runningTill();
  return {
    timeZone: settings.timeZone,
    journal,
    journalDays,
    graceDays,
    signUp: { who: settings.signUp, domains: settings.signUpDomains },
    till: till === null ? 'none' : till.standIn ? 'stand-in' : 'real',
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
  await trivet.journal.flush(trivet, now);
  const { graceDays, signUp, ...rest } = parsed.data;
  const chosen = {
    ...rest,
    ...(graceDays !== undefined && { graceDays }),
    ...(signUp && { signUp: signUp.who, signUpDomains: signUp.domains }),
  };
  await trivet.changeEverything(() => updateSettings(trivet.db, chosen));
  await forgetOld(trivet, trivet.state, now);
  return null;
}
