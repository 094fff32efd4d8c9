/** Choosing a password by a link that was made on the machine. */
import type { Frame } from '@/services';
import { Field, NewPasswordField } from './field';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface OwnerLinkViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly action: string;
  readonly email: string;
  /** Null for somebody who is not on the site yet. */
  readonly name: string | null;
  readonly typed: string;
  readonly problems: Readonly<Partial<Record<'name' | 'password' | 'form', string>>>;
}

export const OwnerLinkView = ({
  frame,
  delivery,
  action,
  email,
  name,
  typed,
  problems,
}: OwnerLinkViewProps) => (
  <Shell frame={frame} delivery={delivery} title={say().owner.title}>
    <h1>{say().owner.title}</h1>
    <p className="lead">{name === null ? say().owner.newcomer(email) : say().owner.known(name)}</p>
    <form method="post" action={action} className="form">
      {problems.form && (
        <p className="problem" role="alert">
          {problems.form}
        </p>
      )}
      {name === null && (
        <Field
          name="name"
          label={say().signUp.name}
          type="text"
          value={typed}
          complete="name"
          problem={problems.name}
        />
      )}
      <NewPasswordField problem={problems.password} />
      <button className="button justify-self-start" type="submit">
        {say().owner.button}
      </button>
    </form>
  </Shell>
);
