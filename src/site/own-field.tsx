/** A field of a member's profile, to be filled in by themselves. */
import { type FieldValue, isDay, type SiteNames } from '@/core';
import { say } from './wording';

interface OwnFieldProps {
  readonly field: SiteNames['fields'][number];
  /** What it holds, or what was typed; null for nothing. */
  readonly value: FieldValue | null;
  readonly problem: string | undefined;
}

export function OwnField({ field, value, problem }: OwnFieldProps) {
  const id = `field-${field.id}`;
  const words = say().account;
  const about = {
    id,
    name: id,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': problem ? `${id}-problem` : undefined,
  };
  const written = value === null ? '' : String(value);
  return (
    <p className="grid gap-1.5">
      <label htmlFor={id}>{field.name}</label>
      {field.type === 'choice' || field.type === 'yes/no' ? (
        <select {...about} defaultValue={written}>
          <option value="">{words.empty}</option>
          {field.type === 'choice' ? (
            field.choices.map((choice) => <option key={choice}>{choice}</option>)
          ) : (
            <>
              <option value="true">{words.yes}</option>
              <option value="false">{words.no}</option>
            </>
          )}
        </select>
      ) : (
        <input
          {...about}
          type={field.type === 'date' ? 'date' : 'text'}
          inputMode={field.type === 'number' ? 'decimal' : undefined}
          defaultValue={written}
        />
      )}
      {field.type === 'date' && isDay(written) && <span className="hint">{say().day(written)}</span>}
      {problem && (
        <span className="problem" id={`${id}-problem`}>
          {problem}
        </span>
      )}
    </p>
  );
}
