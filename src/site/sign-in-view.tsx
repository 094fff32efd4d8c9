import type { Frame, SignInProblems } from '@/services';
import { Field } from './field';
import { type Delivery, Shell } from './shell';
import { Linked, say } from './wording';

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
  const words = say().signIn;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{words.title}</h1>
      {signedInAs ? (
        <p className="lead">
          <Linked text={(somewhere ? words.notForYou : words.already)(signedInAs)} to={[`${base}/`]} />
        </p>
      ) : (
        somewhere && <p className="lead">{words.back}</p>
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
            label={words.email}
            type="email"
            value={email}
            complete="username"
            problem={problems.email}
          />
          <Field
            name="password"
            label={words.password}
            type="password"
            value=""
            complete="current-password"
            problem={problems.password}
          />
          <button className="button justify-self-start" type="submit">
            {words.button}
          </button>
          {delivery.walk && <p className="hint">{say().frame.onWalk}</p>}
          <p className="flex flex-wrap gap-x-6 gap-y-2">
            <a href={`${base}/sign-up?next=${encodeURIComponent(next)}`}>{words.signUp}</a>
            <a href={`${base}/reset?next=${encodeURIComponent(next)}`}>{words.forgot}</a>
          </p>
        </form>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised where it was rendered */}
        {note && <aside className="beside prose" dangerouslySetInnerHTML={{ __html: note }} />}
      </div>
    </Shell>
  );
}
