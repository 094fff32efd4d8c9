import { say } from './wording';

interface FieldProps {
  readonly name: string;
  readonly label: string;
  readonly type: string;
  readonly value: string;
  readonly complete: string;
  readonly problem: string | undefined;
  /** For digits alone. */
  readonly numeric?: boolean;
}

/** A labelled field of a plain form, with what is wrong with it next to it. */
export function Field({ name, label, type, value, complete, problem, numeric = false }: FieldProps) {
  return (
    <p className="grid gap-1.5">
      <label htmlFor={name}>{label}</label>
      <input
        id={name}
        name={name}
        type={type}
        inputMode={numeric ? 'numeric' : undefined}
        defaultValue={value}
        autoComplete={complete}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${name}-problem` : undefined}
      />
      {problem && (
        <span className="problem" id={`${name}-problem`}>
          {problem}
        </span>
      )}
    </p>
  );
}

interface NewPasswordProps {
  readonly problem: string | undefined;
  /** Whether there was one before. */
  readonly anew?: boolean;
}

/** Where somebody chooses a password. */
export const NewPasswordField = ({ problem, anew = false }: NewPasswordProps) => (
  <Field
    name="password"
    label={anew ? say().signUp.newPassword : say().signUp.password}
    type="password"
    value=""
    complete="new-password"
    problem={problem}
  />
);
