import type { Frame, SignInProblems } from '@/services';
import { Field } from './field';
import { type Delivery, Shell } from './shell';

interface SignInViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** What stands before addresses, on a walk. */
  readonly base: string;
  /** Where signing in leads. */
  readonly next: string;
  /** What was typed before, to be kept. Never the password. */
  readonly email: string;
  readonly problems: SignInProblems;
  /** The name of the person who is signed in already. */
  readonly signedInAs: string | null;
  /** What the site says beside the form, as sanitised HTML. */
  readonly note: string;
}

/** The sign-in page: a plain form that works without scripts. */
export function SignInView({
  frame,
  delivery,
  base,
  next,
  email,
  problems,
  signedInAs,
  note,
}: SignInViewProps) {
  const somewhere = next !== '/';
  return (
    <Shell frame={frame} delivery={delivery} title="Sign in">
      <h1>Sign in</h1>
      {signedInAs ? (
        <p className="lead">
          You are signed in as {signedInAs}
          {somewhere && ', and what you asked for isn’t open to this account'}. Sign in as somebody else, or{' '}
          <a href={`${base}/`}>go to the first page</a>.
        </p>
      ) : (
        somewhere && <p className="lead">Afterwards you will be back where you were.</p>
      )}
      <div className="mt-8 grid items-start gap-x-16 gap-y-10 md:grid-cols-[minmax(0,21rem)_1fr]">
        <form method="post" action={'/sign-in'} className="grid max-w-sm gap-5">
          {problems.form && (
            <p className="problem" role="alert" id="form-problem">
              {problems.form}
            </p>
          )}
          <input type="hidden" name="next" value={next} />
          <Field
            name="email"
            label="Mail address"
            type="email"
            value={email}
            complete="username"
            problem={problems.email}
          />
          <Field
            name="password"
            label="Password"
            type="password"
            value=""
            complete="current-password"
            problem={problems.password}
          />
          <button className="button justify-self-start" type="submit">
            Sign in
          </button>
          {delivery.walk && (
            <p className="hint">On a walk nothing is sent. Press the button to see what it would do.</p>
          )}
          <p className="flex flex-wrap gap-x-6 gap-y-2">
            <a href={`${base}/sign-up?next=${encodeURIComponent(next)}`}>Sign up</a>
            <a href={`${base}/reset?next=${encodeURIComponent(next)}`}>I forgot my password</a>
          </p>
        </form>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised where it was rendered */}
        {note && <aside className="beside prose" dangerouslySetInnerHTML={{ __html: note }} />}
      </div>
    </Shell>
  );
}
