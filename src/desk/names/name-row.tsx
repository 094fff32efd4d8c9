'use client';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import { counted, type Named, PRODUCT_KINDS } from '@/core';
import type { NamesEdit } from '@/services';
import { Button, Pick } from '@/ui';
import { useDesk } from '../context';
import type { EditableKind, NamesBench } from './names-screen';

interface RowProps {
  readonly kind: EditableKind;
  readonly one: Named;
  readonly people: number;
  readonly uses: readonly string[];
  readonly condition: string;
  readonly canMove: { readonly up: boolean; readonly down: boolean } | null;
  readonly problem: string | null;
  readonly onMake: (edit: NamesEdit) => Promise<boolean>;
  readonly onBench: (bench: NamesBench) => void;
}

/** One name: who has it, where it is used, and what can be done with it. */
export function NameRow(props: RowProps) {
  const { kind, one, people, uses, condition, canMove, problem, onMake, onBench } = props;
  const { setScreen, data } = useDesk();
  const { id } = one;
  const [typed, setTyped] = useState<string | null>(null);
  const group = data.names.groups.find((each) => kind === 'group' && each.id === id);
  const field = data.names.fields.find((each) => kind === 'field' && each.id === id);
  const product = data.names.products.find((each) => kind === 'product' && each.id === id);
  const rename = async () => {
    const name = typed?.trim() ?? '';
    if (name === '' || name === one.name) setTyped(null);
    else if (await onMake({ kind: 'rename', of: kind, id, name })) setTyped(null);
  };
  return (
    <li className="border-thin border-b py-1">
      <div className="flex items-center gap-1.5">
        <input
          aria-label={`Name of the ${kind} ${one.name}`}
          value={typed ?? one.name}
          maxLength={100}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={() => void rename()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
            if (event.key === 'Escape') setTyped(null);
          }}
          className="min-w-0 flex-1 rounded-[3px] border border-transparent bg-transparent px-1 py-0.5 font-semibold leading-5 hover:border-thin focus:border-iron focus:bg-raised"
        />
        {kind !== 'passphrase' && (
          <button
            type="button"
            title={`Show the ${counted(people, 'person', 'people')}`}
            disabled={people === 0}
            onClick={() => setScreen({ kind: 'people', text: '', condition })}
            className="min-w-8 rounded-[3px] px-1 text-right text-quiet underline decoration-thin underline-offset-3 hover:text-copper disabled:no-underline"
          >
            {people}
            <span className="sr-only"> people have {one.name}</span>
          </button>
        )}
        <span
          className="w-14 text-quiet text-xs"
          title={uses.length > 0 ? `Used by ${uses.join('; ')}` : 'No gate and no audience asks for it'}
        >
          {uses.length > 0 ? `used ${uses.length}×` : 'unused'}
        </span>
        {canMove && (
          <>
            <Button
              weight="quiet"
              size="small"
              disabled={!canMove.up}
              aria-label={`Move ${one.name} up`}
              onClick={() => void onMake({ kind: 'move', of: kind as 'level', id, by: -1 })}
            >
              <ChevronUp size={15} aria-hidden="true" />
            </Button>
            <Button
              weight="quiet"
              size="small"
              disabled={!canMove.down}
              aria-label={`Move ${one.name} down`}
              onClick={() => void onMake({ kind: 'move', of: kind as 'level', id, by: 1 })}
            >
              <ChevronDown size={15} aria-hidden="true" />
            </Button>
          </>
        )}
        <Button
          weight="quiet"
          className="py-0.5"
          aria-label={`Take ${one.name} away`}
          onClick={() =>
            onBench({
              kind: 'before',
              edit: { kind: 'remove', of: kind, id },
              title: `Before ${one.name} is gone`,
              does: `Take ${one.name} away`,
            })
          }
        >
          Remove
        </Button>
      </div>
      {group && (
        <label className="flex items-center gap-1.5 pl-1 text-quiet text-xs">
          <input
            type="checkbox"
            checked={group.private}
            onChange={(event) => void onMake({ kind: 'private', id, private: event.target.checked })}
          />
          private: never named to visitors
        </label>
      )}
      {group && (
        <label className="flex items-center gap-1.5 pl-1 text-quiet text-xs">
          <input
            type="checkbox"
            checked={group.open ?? false}
            onChange={(event) => void onMake({ kind: 'open', id, open: event.target.checked })}
          />
          open: members join and leave it themselves
        </label>
      )}
      {field && (
        <p className="flex items-center gap-2 pl-1 text-quiet text-xs">
          {field.type === 'choice' ? `choice of ${field.choices.join(', ')}` : field.type}
          {field.private && ' · private'}
          {field.editable && ' · members fill it in'}
          <button
            type="button"
            aria-label={`Change the field ${one.name}`}
            onClick={() => onBench({ kind: 'field', id })}
            className="underline decoration-thin underline-offset-3 hover:text-copper"
          >
            change
          </button>
        </p>
      )}
      {product && (
        <Pick
          label={`What ${one.name} is`}
          value={product.kind}
          options={PRODUCT_KINDS.map((type) => ({ value: type, label: type }))}
          onPick={(type) => void onMake({ kind: 'product', id, type })}
          className="ml-1 border-transparent py-0 text-quiet text-xs"
        />
      )}
      {kind === 'passphrase' && <NewPassphrase id={id} name={one.name} onMake={onMake} />}
      {problem && (
        <p role="alert" className="pl-1 text-alarm">
          {problem}
        </p>
      )}
    </li>
  );
}

function NewPassphrase({
  id,
  name,
  onMake,
}: {
  readonly id: string;
  readonly name: string;
  readonly onMake: RowProps['onMake'];
}) {
  const [phrase, setPhrase] = useState('');
  return (
    <form
      className="flex gap-1.5 pl-1"
      onSubmit={async (event) => {
        event.preventDefault();
        if (await onMake({ kind: 'passphrase', id, passphrase: phrase })) setPhrase('');
      }}
    >
      <input
        aria-label={`What is to be typed for ${name}`}
        placeholder="what is to be typed from now on"
        value={phrase}
        maxLength={200}
        autoComplete="off"
        onChange={(event) => setPhrase(event.target.value)}
        className="min-w-0 flex-1 rounded-[3px] border border-thin bg-transparent px-2 py-0.5 leading-5 focus:bg-raised"
      />
      <Button type="submit" weight="quiet" className="py-0.5" disabled={phrase.trim() === ''}>
        Set
      </Button>
    </form>
  );
}
