/** Answering an invitation. A plain form that works without scripts. */
import type { Frame } from '@/services';
import { NewPasswordField } from './field';
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
      <NewPasswordField problem={problem ?? undefined} />
      <button className="button justify-self-start" type="submit">
        Come in
      </button>
    </form>
  </Shell>
);

/** What every link says that is over, or never was one: nobody who was invited is left standing. */
export const InvitationOverView = ({ frame, delivery }: Pick<InvitedViewProps, 'frame' | 'delivery'>) => (
  <Shell frame={frame} delivery={delivery} title="This invitation is over">
    <h1>This invitation is over</h1>
    <p className="lead">
      It is good for a week and for one time, and only the latest one counts. Whoever invited you can send
      another.
    </p>
    <p className="more">
      Have a password already? <a href="/sign-in">Sign in</a>, or <a href="/reset">choose a new one</a>.
    </p>
  </Shell>
);
