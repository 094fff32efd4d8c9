/** Loading a site: everything in one file, all or nothing. The demo goes through here like anybody's site. */
import { asId, type PassphraseId, type PersonId } from '@/core';
import { replaceTerms, setPassphraseHash, setPasswordHash, updateDraft, writeBoard } from '@/store';
import type { Trivet } from '../running';
import { hashFilePassword, hashPassphrase, newSettings } from '../running';
import { writeSite } from '../writing';
import { readSiteFile } from './read-site-file';
import type { SiteFileRead } from './site-file-form';
import { wishesIn } from './wishes-in';

const THERE = 'There is a site already. Choose an empty data folder with TRIVET_DATA, or an empty database.';

/** Loads a site into a Trivet that has none. Answers every problem found, or none when it is loaded. */
export async function importSite(trivet: Trivet, input: unknown, author: string): Promise<readonly string[]> {
  if (trivet.hasSite) return [THERE];
  const site = await readSiteFile(input);
  if ('problems' in site) return site.problems;
  const { file } = site;
  const people = site.people ?? [];
  if (!people.some(({ desk }) => desk?.right === 'owner'))
    return [
      'people: nobody in the file owns the site. Give somebody "desk": {"right": "owner", "branch": null}.',
    ];
  const { timeZone, journal } = file;
  const settings = {
    ...newSettings(timeZone),
    ...(file.passphraseSalt !== undefined && { passphraseSalt: file.passphraseSalt }),
    journal: journal.keeps,
    journalDays: journal.days,
    ...wishesIn(file),
    ...(file.signUp && { signUp: file.signUp.who, signUpDomains: file.signUp.domains }),
    ...(file.shop && { graceDays: file.shop.graceDays }),
  };
  const { passwords, passphrases } = await hashesIn(file, settings.passphraseSalt);
  return trivet.alone(async () => {
    // Somebody else may have begun meanwhile.
    if (trivet.hasSite) return [THERE];
    await trivet.db.transaction(async (tx) => {
      await writeSite(tx, { ...site, settings, people }, author);
      await replaceTerms(tx, site.terms ?? []);
      for (const { id, hash } of passwords) await setPasswordHash(tx, id, hash);
      for (const { id, hash } of passphrases) await setPassphraseHash(tx, id, hash);
      if (site.draft !== site.policy) await updateDraft(tx, site.draft, 1, author);
      const board = ['guest' as const, ...file.board.map((person) => ({ person }))];
      if (file.board.length > 0) {
        for (const person of people.filter(({ desk }) => desk)) await writeBoard(tx, person.id, board);
      }
    });
    await trivet.reload();
    return [];
  });
}

/**
 * What is kept of the passwords and passphrases of a file. What was made with another salt than the site's nobody could type,
 * so that is left out.
 */
export async function hashesIn(
  { people = [], passphrases, passphraseSalt }: SiteFileRead,
  salt: string,
): Promise<{
  readonly passwords: readonly { readonly id: PersonId; readonly hash: string }[];
  readonly passphrases: readonly { readonly id: PassphraseId; readonly hash: string }[];
}> {
  return {
    passwords: await Promise.all(
      people.flatMap(({ id, password, passwordHash }) => {
        const hash = password === undefined ? passwordHash : hashFilePassword(password);
        return hash === undefined ? [] : [keptAs(asId<PersonId>(id), hash)];
      }),
    ),
    passphrases: await Promise.all(
      passphrases.flatMap(({ id, passphrase, hash: before }) => {
        const kept = passphraseSalt === salt ? before : undefined;
        const hash = passphrase === undefined ? kept : hashPassphrase(passphrase, salt);
        return hash === undefined ? [] : [keptAs(asId<PassphraseId>(id), hash)];
      }),
    ),
  };
}

const keptAs = async <I>(id: I, hash: string | Promise<string>) => ({ id, hash: await hash });
