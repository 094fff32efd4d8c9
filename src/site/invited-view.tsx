/** Answering an invitation. A plain form that works without scripts. */
import type { Frame } from '@/services';
import { NewPasswordField } from './field';
import { type Delivery, Shell } from './shell';
import { Linked, say } from './wording';

interface InvitedViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly action: string;
  readonly name: string;
  readonly email: string;
  readonly problem: string | null;
}

export const InvitedView = ({ frame, delivery, action, name, email, problem }: InvitedViewProps) => (
  <Shell frame={frame} delivery={delivery} title={say().invited.title}>
    <h1>{say().invited.heading(name)}</h1>
    <p className="lead">{say().invited.lead(email)}</p>
    <form method="post" action={action} className="form">
      <NewPasswordField problem={problem ?? undefined} />
      <button className="button justify-self-start" type="submit">
        {say().invited.button}
      </button>
    </form>
  </Shell>
);

/** What every link says that is over, or never was one: nobody who was invited is left standing. */
export const InvitationOverView = ({ frame, delivery }: Pick<InvitedViewProps, 'frame' | 'delivery'>) => (
  <Shell frame={frame} delivery={delivery} title={say().invited.over}>
    <h1>{say().invited.over}</h1>
    <p className="lead">{say().invited.overText}</p>
    <p className="more">
      <Linked text={say().invited.password} to={['/sign-in', '/reset']} />
    </p>
  </Shell>
);
