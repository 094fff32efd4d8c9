/** The pages of the way in: signing up, typing a code, a new password. Plain forms that work without scripts. */
import type { SiteNames } from '@/core';
import type { Frame, JourneyProblems } from '@/services';
import { Field, NewPasswordField } from './field';
import { OwnField } from './own-field';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface JourneyProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Where it leads in the end. */
  readonly next: string;
  readonly problems: JourneyProblems;
}

const OnWalk = ({ walk }: { readonly walk: boolean }) =>
  walk ? <p className="hint">{say().frame.onWalk}</p> : null;

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
  const words = say().signUp;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{words.title}</h1>
      <p className="lead">{signedInAs ? words.another(signedInAs) : words.lead}</p>
      {only !== null && <p className="mt-4">{only}</p>}
      <form method="post" action={'/sign-up'} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="name"
          label={words.name}
          type="text"
          value={typed.name}
          complete="name"
          problem={problems.name}
        />
        <Field
          name="email"
          label={say().signIn.email}
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
          {say().signUp.button}
        </button>
        <OnWalk walk={walk} />
      </form>
      <p className="more">
        <a href={`${base}/sign-in?next=${encodeURIComponent(next)}`}>{words.account}</a>
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
  const words = say().code;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{words.title}</h1>
      <p className="lead">{words.lead}</p>
      <form method="post" action={`${door}/confirm`} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="token" value={token} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="code"
          label={words.label}
          type="text"
          value=""
          complete="one-time-code"
          problem={problems.code}
          numeric
        />
        {purpose === 'reset' && <NewPasswordField anew problem={problems.password} />}
        <button className="button justify-self-start" type="submit">
          {purpose === 'sign up' ? words.finish : words.keep}
        </button>
        <OnWalk walk={walk} />
      </form>
      {token !== '' && (
        <form method="post" action={`${door}/again`} className="more">
          <input type="hidden" name="token" value={token} />
          <input type="hidden" name="next" value={next} />
          <button className="plain" type="submit">
            {words.again}
          </button>
        </form>
      )}
      <p className="more">
        <a href={`${base}${door}?next=${encodeURIComponent(next)}`}>{words.anew}</a>
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
    <Shell frame={frame} delivery={delivery} title={say().reset.title}>
      <h1>{say().reset.heading}</h1>
      <p className="lead">{say().reset.lead}</p>
      <form method="post" action={'/reset'} className="form">
        <Problem text={problems.form} />
        <input type="hidden" name="next" value={next} />
        <Field
          name="email"
          label={say().signIn.email}
          type="email"
          value={email}
          complete="email"
          problem={problems.email}
        />
        <button className="button justify-self-start" type="submit">
          {say().signUp.button}
        </button>
        <OnWalk walk={walk} />
      </form>
    </Shell>
  );
}
