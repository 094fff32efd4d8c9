/** What an owner wishes of their site, as it comes from outside. */
import { z } from 'zod';
import {
  asId,
  COLOURS,
  type ColourProblem,
  colourProblems,
  hasOwnWords,
  type ItemId,
  type LevelId,
  regionMarkIn,
  type SiteNames,
} from '@/core';
import type { SiteLook, SiteStarts } from '@/store';
import { markdownProblem } from '../texts';
import { newId as id } from './text-form';

const LONGEST = 20_000;

const colour = z.string().trim().toLowerCase().max(20);

const sayOf = ({ message, instead }: ColourProblem): string =>
  instead === null ? message : `${message} ${instead} would do.`;

/** How a site looks: colours that can be read, and a picture. */
export const lookShape = z
  .strictObject({
    head: colour.default(COLOURS.head),
    mark: colour.default(COLOURS.mark),
    link: colour.default(COLOURS.link),
    picture: id.nullable().default(null),
  })
  .superRefine((look, context) => {
    for (const problem of colourProblems(look))
      context.addIssue({ code: 'custom', message: sayOf(problem), path: [problem.colour] });
  });

/** A text that stands on every page: the same for everybody, so it has no regions and no words of its reader. */
export const plainText = z
  .string()
  .max(LONGEST, `At most ${LONGEST} characters.`)
  .superRefine((text, context) => {
    const problem = markdownProblem(text);
    if (problem) context.addIssue({ code: 'custom', message: `Line ${problem.line}: ${problem.message}` });
    else if (text.split('\n').some((line) => regionMarkIn(line) !== null) || hasOwnWords(text))
      context.addIssue({
        code: 'custom',
        message:
          'It is the same for everybody: no line begins with colons, and nothing in it is of its reader.',
      });
  });

export const wordsShape = z.strictObject({ foot: plainText.default(''), missing: plainText.default('') });

export const startsShape = z.strictObject({
  level: id.nullable().default(null),
  roles: z.array(id).max(50).default([]),
  groups: z.array(id).max(50).default([]),
  /** Fields that are asked for. */
  asks: z.array(id).max(20).default([]),
});

/** What new members can't start with, because there is no such thing; in a sentence each. */
export const startsProblems = (
  { level, roles, groups, asks }: z.output<typeof startsShape>,
  names: SiteNames,
): readonly string[] => {
  const there = (list: readonly { readonly id: string }[], one: string) =>
    list.some((each) => each.id === one);
  return [
    ...(level !== null && !there(names.levels, level) ? [`There is no level "${level}".`] : []),
    ...roles.filter((one) => !there(names.roles, one)).map((one) => `There is no role "${one}".`),
    ...groups.filter((one) => !there(names.groups, one)).map((one) => `There is no group "${one}".`),
    ...asks
      .filter((one) => !names.fields.some((field) => field.id === one && field.editable))
      .map((one) => `There is no field "${one}" that members fill in themselves.`),
  ];
};

/** What new members start with, as far as there still is such a thing. */
export const startsNow = ({ level, roles, groups, asks }: SiteStarts, names: SiteNames): SiteStarts => ({
  level: names.levels.some(({ id: one }) => one === level) ? level : null,
  roles: roles.filter((one) => names.roles.some((each) => each.id === one)),
  groups: groups.filter((one) => names.groups.some((each) => each.id === one)),
  asks: asks.filter((one) => names.fields.some((each) => each.id === one && each.editable)),
});

/** A look as it is kept. */
export const lookOf = ({ picture, ...colours }: z.output<typeof lookShape>): SiteLook => ({
  ...colours,
  picture: picture === null ? null : asId<ItemId>(picture),
});

/** What new members start with, as it is kept. */
export const startsOf = ({ level, roles, groups, asks }: z.output<typeof startsShape>): SiteStarts => ({
  level: level === null ? null : asId<LevelId>(level),
  roles: roles.map((one) => asId(one)),
  groups: groups.map((one) => asId(one)),
  asks: asks.map((one) => asId(one)),
});
