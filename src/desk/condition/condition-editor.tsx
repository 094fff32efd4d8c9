'use client';
/**
 * A condition as something to edit in place: tests in rows, and/or groups as indented blocks that can be dragged, `not` as
 * a toggle.
 */
import { useDraggable, useDroppable } from '@dnd-kit/core';
import { clsx } from 'clsx';
import { GripVertical, X } from 'lucide-react';
import type { Condition } from '@/core';
import { Button, Choice } from '@/ui';
import { useDesk } from '../context';
import { Places, useMoving } from '../places';
import { asCondition, asJoined, type Joined, joinedTests, movePart, type Path } from './joined';
import { newTest } from './new-test';
import { AtomEditor } from './test-editor';

interface EditorProps {
  readonly condition: Condition;
  readonly onChange: (condition: Condition) => void;
}

/** A part that is moved. */
interface Moved {
  readonly path: Path;
}

/** Where it can be put down: before the `index`th part of a group. */
interface Place {
  readonly group: Path;
  readonly index: number;
}

/** Edits a whole condition. */
export function ConditionEditor({ condition, onChange }: EditorProps) {
  const group = asJoined(condition);
  const put = (part: Moved, place: Place) => {
    const moved = movePart(group, part.path, place.group, place.index);
    if (moved !== group) onChange(asCondition(joinedTests(moved.kind, moved.of)));
  };
  return (
    <Places
      onPut={put}
      sayPlace={(place: Place) => `place ${place.index + 1}${place.group.length > 0 ? ' of the group' : ''}`}
    >
      <JoinedEditor group={group} path={[]} onChange={(joined) => onChange(asCondition(joined))} />
    </Places>
  );
}

interface JoinedEditorProps {
  readonly group: Joined;
  readonly path: Path;
  readonly onChange: (group: Joined) => void;
}

function JoinedEditor({ group, path, onChange }: JoinedEditorProps) {
  const { vocabulary } = useDesk();
  const change = (of: readonly Condition[]) => onChange(joinedTests(group.kind, of));
  return (
    <div className="grid gap-1">
      {group.of.length > 1 && (
        <div className="pb-1">
          <Choice
            label="How these go together"
            value={group.kind}
            options={[
              { value: 'all', label: 'all of these' },
              { value: 'any', label: 'any of these' },
            ]}
            onChoose={(kind) => onChange({ ...group, kind })}
          />
        </div>
      )}
      {group.of.length === 0 && (
        <p className="note">
          {group.kind === 'all' ? 'No tests: everyone passes.' : 'No tests: nobody passes.'}
        </p>
      )}
      <ul className="grid">
        {group.of.map((part, index) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the parts of a condition have no identity but their place
          <li key={index}>
            <Slot group={path} index={index} />
            <PartEditor
              part={part}
              path={[...path, index]}
              onChange={(next) => change(group.of.map((one, at) => (at === index ? next : one)))}
              onRemove={() => change(group.of.filter((_, at) => at !== index))}
            />
          </li>
        ))}
        <li>
          <Slot group={path} index={group.of.length} />
        </li>
      </ul>
      <div className="flex gap-1">
        <Button weight="quiet" onClick={() => change([...group.of, newTest('group', vocabulary)])}>
          + a test
        </Button>
        <Button
          weight="quiet"
          onClick={() =>
            change([
              ...group.of,
              {
                kind: group.kind === 'all' ? 'any' : 'all',
                of: [newTest('group', vocabulary), newTest('role', vocabulary)],
              },
            ])
          }
        >
          + a group of tests
        </Button>
      </div>
    </div>
  );
}

/** A place that a part can be dropped at. */
function Slot({ group, index }: { readonly group: Path; readonly index: number }) {
  const moving = useMoving();
  const { setNodeRef, isOver } = useDroppable({
    id: `slot ${[...group, index].join('.')}`,
    data: { group, index } satisfies Place,
    disabled: !moving,
  });
  return (
    <div
      ref={setNodeRef}
      aria-hidden="true"
      className={clsx(
        'my-0.5 rounded-full',
        !moving ? 'h-0.5' : isOver ? 'h-1.5 bg-copper' : 'h-1.5 bg-thin',
      )}
    />
  );
}

interface PartEditorProps {
  readonly part: Condition;
  readonly path: Path;
  readonly onChange: (part: Condition) => void;
  readonly onRemove: () => void;
}

function PartEditor({ part, path, onChange, onRemove }: PartEditorProps) {
  const denied = part.kind === 'not';
  const inner = part.kind === 'not' ? part.of : part;
  const keep = (next: Condition) => onChange(denied ? { kind: 'not', of: next } : next);
  const group = inner.kind === 'all' || inner.kind === 'any' || inner.kind === 'not';
  const { setNodeRef, setActivatorNodeRef, listeners, attributes, transform, isDragging } = useDraggable({
    id: `part ${path.join('.')}`,
    data: { path } satisfies Moved,
  });
  return (
    <div
      ref={setNodeRef}
      style={
        transform
          ? {
              transform: `translate3d(${transform.x}px, ${transform.y}px, 0)`,
              zIndex: 20,
              position: 'relative',
            }
          : undefined
      }
      className={clsx(
        'flex items-start gap-1',
        group && 'rounded-r-[3px] border-iron border-l-2 bg-sunk/60 py-2 pr-1 pl-1',
        isDragging && 'bg-raised opacity-90 shadow-[0_4px_16px_rgb(0_0_0/0.2)]',
      )}
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        {...listeners}
        {...attributes}
        aria-label={group ? 'Move this group' : 'Move this test'}
        title="Drag to move"
        className="cursor-grab touch-none rounded-[3px] py-1.5 text-faint hover:text-copper"
      >
        <GripVertical size={14} aria-hidden="true" />
      </button>
      <button
        type="button"
        aria-pressed={denied}
        title={denied ? 'Take the “not” away' : 'Turn this around'}
        onClick={() => onChange(denied ? inner : { kind: 'not', of: inner })}
        className={clsx(
          'rounded-[3px] border px-1 py-1 leading-5',
          denied
            ? 'border-copper bg-wash font-semibold text-copper'
            : 'border-transparent text-quiet hover:border-iron',
        )}
      >
        not
      </button>
      <div className="min-w-0 flex-1">
        {inner.kind === 'test' || inner.kind === 'audience' ? (
          <AtomEditor atom={inner} onChange={keep} />
        ) : (
          <JoinedEditor
            group={asJoined(inner)}
            path={path}
            onChange={(joined) => (joined.of.length === 0 ? onRemove() : keep(joined))}
          />
        )}
      </div>
      <Button
        weight="quiet"
        size="small"
        aria-label={group ? 'Take this group out' : 'Take this test out'}
        title="Take out"
        onClick={onRemove}
      >
        <X size={14} aria-hidden="true" />
      </Button>
    </div>
  );
}
