/** Answering an invitation. A plain form that works without scripts. */
import type { Frame } from '@/services';
import { Field } from './field';
import { type Delivery, Shell } from './shell';

interface InvitedViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly action: string;
  readonly name: string;
  readonly email: string;
  readonly problem: string | null;
}

export const InvitedView = ({ frame, delivery, action, name, email, problem }: InvitedViewProps) => (
  <Shell frame={frame} delivery={delivery} title="You are invited">
    <h1>There is a place for you, {name}</h1>
    <p className="lead">Choose a password. From then on you sign in with it and {email}.</p>
    <form method="post" action={action} className="form">
      <Field
        name="password"
        label="Password, at least 8 characters"
        type="password"
        value=""
        complete="new-password"
        problem={problem ?? undefined}
      />
      <button className="button justify-self-start" type="submit">
        Come in
      </button>
    </form>
  </Shell>
);
