/** The shape of a site file as JSON Schema (2020-12), made of the same declarations that read it. */
import { z } from 'zod';
import { conditionShape } from '../condition-form';
import { policyShape } from '../policy-form';
import { siteFile } from './site-file-form';

const ID = 'https://trivet.example/schemas/site-file-1.json';

/** The schema of what may be written by hand: what has a standard value can be left out. */
export function siteFileSchema(): Readonly<Record<string, unknown>> {
  const condition = z.union([
    z.string().describe('A condition in the text form: signed in and level at least "Observer"'),
    conditionShape,
  ]);
  const policy = policyShape(condition);
  const schema = z.toJSONSchema(siteFile.extend({ policy, draft: policy.optional() }), {
    target: 'draft-2020-12',
    io: 'input',
    unrepresentable: 'any',
    reused: 'ref',
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
