import type { FormField as Question } from '@/services';
import { say } from './wording';

interface FormFieldProps {
  readonly field: Question;
  readonly name: string;
  readonly id: string;
  readonly value: string;
  readonly problem?: string | undefined;
}

/** One question of a form that a site's author made. */
export function FormField({ field, name, id, value, problem }: FormFieldProps) {
  const about = {
    id,
    name,
    required: field.required,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby': problem ? `${id}-problem` : undefined,
  };
  const label = (
    <label htmlFor={id}>
      {field.label}
      {!field.required && field.type !== 'tick' && <span className="hint"> {say().form.optional}</span>}
    </label>
  );
  return (
    <p className={field.type === 'tick' ? 'tick' : 'grid gap-1.5'}>
      {field.type !== 'tick' && label}
      {field.type === 'long' ? (
        <textarea {...about} rows={5} defaultValue={value} />
      ) : field.type === 'choice' ? (
        <select {...about} defaultValue={value}>
          <option value="">{say().form.choose}</option>
          {field.choices.map((choice) => (
            <option key={choice}>{choice}</option>
          ))}
        </select>
      ) : field.type === 'tick' ? (
        <input {...about} type="checkbox" value="yes" defaultChecked={value === 'yes'} />
      ) : (
        <input {...about} type={field.type === 'mail' ? 'email' : 'text'} defaultValue={value} />
      )}
      {field.type === 'tick' && label}
      {problem && (
        <span className="problem" id={`${id}-problem`}>
          {problem}
        </span>
      )}
    </p>
  );
}
