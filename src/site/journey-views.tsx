/** The pages of the way in: signing up, typing a code, a new password. Plain forms that work without scripts. */
import type { SiteNames } from '@/core';
import type { Frame, JourneyProblems } from '@/services';
import { Field, NewPasswordField } from './field';
import { OwnField } from './own-field';
import { type Delivery, Shell } from './shell';

interface JourneyProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Where it leads in the end. */
  readonly next: string;
  readonly problems: JourneyProblems;
}

const OnWalk = ({ walk }: { readonly walk: boolean }) =>
  walk ? <p className="hint">On a walk nothing is sent. Press the button to see what it would do.</p> : null;

const Problem = ({ text }: { readonly text: string | undefined }) =>
  text ? (
    <p className="problem" role="alert">
      {text}
    </p>
  ) : null;

interface SignUpViewProps extends JourneyProps {
  readonly base: string;
  readonly typed: { readonly name: string; readonly email: string };
  readonly signedInAs: string | null;
  /** Who may sign up, where not everybody may. */
  readonly only: string | null;
  /** What is asked beside, with what was typed. */
  readonly asked: readonly { readonly field: SiteNames['fields'][number]; readonly value: string }[];
}

export function SignUpView({
  frame,
  delivery,
  next,
  problems,
  base,
  typed,
  signedInAs,
  only,
  asked,
}: SignUpViewProps) {
  const { walk } = delivery;
  return (
    <Shell frame={frame} delivery={delivery} title="Sign up">
      <h1>Sign up</h1>
      <p className="lead">
        {signedInAs
          ? `You are signed in as ${signedInAs}. This makes another account.`
          : 'We send a code to your mail address, and that is all we use it for.'}
      </p>
      {only !== null && <p className="mt-4">{only}</p>}
      <form method="post" action={'/sign-up'} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="name"
          label="Your name"
          type="text"
          value={typed.name}
          complete="name"
          problem={problems.name}
        />
        <Field
          name="email"
          label="Mail address"
          type="email"
          value={typed.email}
          complete="email"
          problem={problems.email}
        />
        <NewPasswordField problem={problems.password} />
        {asked.map(({ field, value }) => (
          <OwnField key={field.id} field={field} value={value} problem={problems[`field-${field.id}`]} />
        ))}
        <button className="button justify-self-start" type="submit">
          Send me a code
        </button>
        <OnWalk walk={walk} />
      </form>
      <p className="more">
        <a href={`${base}/sign-in?next=${encodeURIComponent(next)}`}>I have an account</a>
      </p>
    </Shell>
  );
}

interface CodeViewProps extends JourneyProps {
  readonly base: string;
  readonly purpose: 'sign up' | 'reset';
  readonly token: string;
}

export function CodeView({ frame, delivery, next, problems, base, purpose, token }: CodeViewProps) {
  const { walk } = delivery;
  const door = purpose === 'sign up' ? '/sign-up' : '/reset';
  return (
    <Shell frame={frame} delivery={delivery} title="Your code">
      <h1>Your code</h1>
      <p className="lead">
        If everything is in order, a mail with six digits is on its way to you. They are good for a quarter of
        an hour.
      </p>
      <form method="post" action={`${door}/confirm`} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="token" value={token} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="code"
          label="Six digits"
          type="text"
          value=""
          complete="one-time-code"
          problem={problems.code}
          numeric
        />
        {purpose === 'reset' && <NewPasswordField called="New password" problem={problems.password} />}
        <button className="button justify-self-start" type="submit">
          {purpose === 'sign up' ? 'Finish' : 'Keep this password'}
        </button>
        <OnWalk walk={walk} />
      </form>
      {token !== '' && (
        <form method="post" action={`${door}/again`} className="more">
          <input type="hidden" name="token" value={token} />
          <input type="hidden" name="next" value={next} />
          <button className="plain" type="submit">
            Send it again
          </button>
        </form>
      )}
      <p className="more">
        <a href={`${base}${door}?next=${encodeURIComponent(next)}`}>Begin again</a>
      </p>
    </Shell>
  );
}

export function ResetView({
  frame,
  delivery,
  next,
  problems,
  email,
}: JourneyProps & { readonly email: string }) {
  const { walk } = delivery;
  return (
    <Shell frame={frame} delivery={delivery} title="New password">
      <h1>A new password</h1>
      <p className="lead">Type your mail address. If there is an account with it, a code is sent there.</p>
      <form method="post" action={'/reset'} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="email"
          label="Mail address"
          type="email"
          value={email}
          complete="email"
          problem={problems.email}
        />
        <button className="button justify-self-start" type="submit">
          Send me a code
        </button>
        <OnWalk walk={walk} />
      </form>
    </Shell>
  );
}
