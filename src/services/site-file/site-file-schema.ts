/**
 * The shape of a site file as JSON Schema (2020-12), made of the very declarations that read it: what the schema refuses is
 * refused, and what is refused beyond it names something that is not there.
 */
import { z } from 'zod';
import { siteFile } from './site-file-form';

const ID = 'https://trivet.example/schemas/site-file-1.json';

/** The schema of what may be written by hand: what has a standard value can be left out. */
export function siteFileSchema(): Readonly<Record<string, unknown>> {
  const schema = z.toJSONSchema(siteFile, {
    target: 'draft-2020-12',
    io: 'input',
    unrepresentable: 'any',
    reused: 'ref',
    // The patterns beside them say as much, and strict readers refuse formats that they don't know.
    override: ({ jsonSchema }) => {
      if (jsonSchema.pattern !== undefined) delete jsonSchema.format;
    },
  });
  return {
    $schema: schema.$schema,
    $id: ID,
    title: 'A site as one file',
    description:
      'Everything on a Trivet site. Beyond this shape, what is named has to be there, and addresses stand in their normal spelling.',
    ...schema,
  };
}
