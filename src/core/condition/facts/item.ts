/** What conditions can ask of an item, and of an item and a visitor together. */
import { groupsAt } from '../../site/granted';
import { isAddressed } from '../../site/item';
import { ACTIVITY_TYPES, ITEM_KINDS } from '../../site/kinds';
import { isCompleted } from '../../site/visitor';
import { beforeOf, courseOf, unitOf } from '../../site/within';
import type { FactEntry } from './fact';

export const itemFacts = {
  'visitor owns item': {
    label: 'Owns the item',
    of: 'visitor and item',
    dependsOn: ({ facts }) => facts?.owner ?? null,
    type: 'truth',
    read: () => (visitor, item) => {
      const owner = item?.facts?.owner;
      return owner === undefined || visitor.id === null ? null : owner === visitor.id;
    },
  },
  'visitor in item group': {
    label: 'In the item’s group',
    of: 'visitor and item',
    dependsOn: ({ facts }) => facts?.group ?? null,
    type: 'truth',
    read: (_, vocabulary) => {
      const groups = new Set(vocabulary.groups.map(({ id }) => id));
      return (visitor, item, { today }) => {
        const group = item?.facts?.group;
        const held = groupsAt(visitor, today);
        // Nobody is in a group that is gone, and nobody is known to be outside it either.
        if (group === undefined || !groups.has(group) || held === null) return null;
        return held.includes(group);
      };
    },
  },
  'completed the one before': {
    label: 'Completed the one before',
    of: 'visitor and item',
    dependsOn: (item) => {
      const before = beforeOf(item);
      return before && (before.id ?? 'nothing before');
    },
    type: 'truth',
    read: () => (visitor, item) => {
      const before = beforeOf(item);
      // Of guests it is not known what they have done, so for them nothing is in its turn.
      if (before === null || visitor.completions === null) return null;
      return before.id === null || isCompleted(visitor.completions, before.id);
    },
  },
  'item course': {
    label: 'Course of the item',
    of: 'item',
    type: 'set',
    values: 'course',
    read: () => (_visitor, item) => {
      const course = courseOf(item);
      return course === null ? null : [course];
    },
  },
  'item unit': {
    label: 'Unit of the item',
    of: 'item',
    type: 'set',
    values: 'unit',
    read: () => (_visitor, item) => {
      const unit = unitOf(item);
      return unit === null ? null : [unit];
    },
  },
  'activity type': {
    label: 'Type of the activity',
    of: 'item',
    type: 'choice',
    choices: ACTIVITY_TYPES,
    read: () => (_visitor, item) => (item?.kind === 'activity' ? item.activity : null),
  },
  'item kind': {
    label: 'Kind of the item',
    of: 'item',
    type: 'choice',
    choices: ITEM_KINDS,
    always: true,
    read: () => (_visitor, item) => item?.kind ?? null,
  },
  'item address': {
    label: 'Address of the item',
    of: 'item',
    type: 'text',
    read: () => (_visitor, item) => (item && isAddressed(item) ? item.address : null),
  },
  'item category': {
    label: 'Category of the item',
    of: 'item',
    type: 'text',
    read: () => (_visitor, item) => item?.facts?.category ?? null,
  },
  'item tag': {
    label: 'Tag of the item',
    of: 'item',
    type: 'words',
    read: () => (_visitor, item) => item?.facts?.tags ?? null,
  },
  'item author': {
    label: 'Author of the item',
    of: 'item',
    type: 'text',
    read: () => (_visitor, item) => item?.facts?.author ?? null,
  },
  'item owner': {
    label: 'Owner of the item',
    of: 'item',
    type: 'presence',
    read: () => (_visitor, item) => item?.facts?.owner ?? null,
  },
  'item group': {
    label: 'Group of the item',
    of: 'item',
    type: 'set',
    values: 'group',
    read: () => (_visitor, item) => {
      const group = item?.facts?.group;
      return group === undefined ? null : [group];
    },
  },
  'item date': {
    label: 'Date of the item',
    of: 'item',
    type: 'date',
    read: () => (_visitor, item) => item?.facts?.date ?? null,
  },
  'item picture': {
    label: 'Picture of the item',
    of: 'item',
    type: 'presence',
    read: () => (_visitor, item) => item?.facts?.picture ?? null,
  },
} as const satisfies Record<string, FactEntry>;
