/** The API's description: OpenAPI 3.1 (https://spec.openapis.org/oas/v3.1.0), made of the shapes that answers have. */
import { z } from 'zod';
import { KINDS, listed, OPENABLE_KINDS } from '@/core';
import { courseShape, entryShape, itemShape, listShape, problemShape, sectionShape } from './shapes';

const reference = (name: string) => ({ $ref: `#/components/schemas/${name}` });
const json = (name: string) => ({ content: { 'application/json': { schema: reference(name) } } });
const problem = (description: string) => ({
  description,
  content: { 'application/problem+json': { schema: reference('Problem') } },
});
const text = (name: string, description: string, schema: object = { type: 'string' }) => ({
  name,
  in: 'query',
  description,
  schema,
});

function schemas(): Record<string, unknown> {
  const registry = z.registry<{ id: string }>();
  registry.add(entryShape, { id: 'Entry' });
  registry.add(sectionShape, { id: 'Section' });
  registry.add(courseShape, { id: 'Course' });
  registry.add(itemShape, { id: 'Item' });
  registry.add(listShape, { id: 'Items' });
  registry.add(problemShape, { id: 'Problem' });
  const made = z.toJSONSchema(registry, { uri: (id) => `#/components/schemas/${id}` }).schemas;
  // An id within a schema would be the base of every reference in it.
  return Object.fromEntries(Object.entries(made).map(([name, { $id: _, ...schema }]) => [name, schema]));
}

export const openApi = (origin: string): object => ({
  openapi: '3.1.0',
  info: {
    title: 'The items of this site',
    version: '1.0.0',
    description:
      'What a member, or a guest, gets in the browser, an app gets here: the same decisions, by the same code. Members make keys for apps on their account page and take them back there.',
  },
  servers: [{ url: origin }],
  security: [{}, { key: [] }],
  paths: {
    '/api/items': {
      get: {
        operationId: 'listItems',
        summary: 'What is open, and what shows a teaser',
        parameters: [
          text(
            'kind',
            `Only ${listed(
              OPENABLE_KINDS.map((kind) => KINDS[kind].many),
              'or',
            )}.`,
            {
              type: 'string',
              enum: OPENABLE_KINDS,
            },
          ),
          text('category', 'Only those of a category, by name.'),
          text('tag', 'Only those with a tag.'),
          text('limit', 'How many at once.', { type: 'integer', minimum: 1, maximum: 100, default: 20 }),
          text('after', 'Go on after the item with this id; the answer says how.'),
        ],
        responses: {
          200: { description: 'Posts come first, the latest first.', ...json('Items') },
          400: problem('A parameter can’t be used.'),
          401: problem('The key is good for nothing (any more).'),
        },
      },
    },
    '/api/items/{id}': {
      get: {
        operationId: 'readItem',
        summary: 'One page, post or file',
        parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
        responses: {
          200: { description: 'All of it, or a teaser.', ...json('Item') },
          401: problem('The key is good for nothing (any more).'),
          403: problem(
            'It is not open to whoever asks; a browser would get a message, or be sent elsewhere.',
          ),
          404: problem('There is nothing, as far as whoever asks can tell.'),
        },
      },
    },
    '/api/courses/{id}': {
      get: {
        operationId: 'readCourse',
        summary: 'What there is to do in a course, and what the key’s member has done of it',
        parameters: [{ name: 'id', in: 'path', required: true, schema: { type: 'string' } }],
        responses: {
          200: {
            description: 'Its outline, as whoever asks gets it.',
            ...json('Course'),
          },
          401: problem('The key is good for nothing (any more).'),
          403: problem('It is not open to whoever asks.'),
          404: problem('There is no such course, as far as whoever asks can tell.'),
        },
      },
    },
    '/api/openapi.json': {
      get: {
        operationId: 'readDescription',
        summary: 'This document',
        responses: { 200: { description: 'OpenAPI 3.1.', content: { 'application/json': {} } } },
      },
    },
  },
  components: {
    schemas: schemas(),
    securitySchemes: { key: { type: 'http', scheme: 'bearer' } },
  },
});
