/** Pages of a member's own: their account by itself, their keys, a form that was sent. */
import type { AccountView, FormAnswer, Frame, Key } from '@/services';
import { AccountForm } from './account-form';
import { Field } from './field';
import { FormField } from './form-field';
import { type Delivery, Shell } from './shell';

interface AccountViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly account: AccountView;
  readonly problems: Readonly<Record<string, string>>;
}

export const AccountPage = ({ frame, delivery, account, problems }: AccountViewProps) => (
  <Shell frame={frame} delivery={delivery} title="Your account">
    <h1>Your account</h1>
    <AccountForm account={account} problems={problems} />
  </Shell>
);

interface KeysViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly keys: readonly Key[];
  /** The key that was just made; it is shown here and never again. */
  readonly made: { readonly key: string; readonly use: 'api' | 'feed'; readonly name: string } | null;
  readonly problem: string | null;
}

export function KeysView({ frame, delivery, keys, made, problem }: KeysViewProps) {
  const { origin } = delivery;
  return (
    <Shell frame={frame} delivery={delivery} title="Your feed and keys">
      <h1>Your own feed, and keys for apps</h1>
      <p className="lead">
        A feed reader or an app gets what you get on the site. Whoever has a key reads as you do, so keep them
        to yourself and take back what you no longer use.
      </p>
      {made && (
        <div className="closed" role="status">
          <h2>{made.name}</h2>
          <p>{made.use === 'feed' ? 'The address of your feed:' : 'The key, as a bearer token:'}</p>
          <p>
            <code className="key">
              {made.use === 'feed' ? `${origin}/feed.xml?key=${made.key}` : made.key}
            </code>
          </p>
          <p className="hint">It is shown this once. Keep it now.</p>
        </div>
      )}
      <form method="post" action={'/me/keys'} className="form">
        <Field
          name="name"
          label="What it is for"
          type="text"
          value=""
          complete="off"
          problem={problem ?? undefined}
        />
        <fieldset className="grid gap-2">
          <legend className="sr-only">Feed or app</legend>
          <label className="tick">
            <input type="radio" name="use" value="feed" defaultChecked /> my own feed
          </label>
          <label className="tick">
            <input type="radio" name="use" value="api" /> an app
          </label>
        </fieldset>
        <button className="button justify-self-start" type="submit">
          Make a key
        </button>
      </form>
      {keys.length > 0 && (
        <ul className="keys">
          {keys.map((key) => (
            <li key={key.id}>
              <span>
                {key.name} <span className="hint">{key.use === 'feed' ? 'feed' : 'app'}</span>
              </span>
              <form method="post" action="/me/keys/revoke">
                <input type="hidden" name="id" value={key.id} />
                <button className="plain" type="submit" aria-label={`Take back ${key.name}`}>
                  Take back
                </button>
              </form>
            </li>
          ))}
        </ul>
      )}
    </Shell>
  );
}

interface SentFormProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly answer: Exclude<FormAnswer, { kind: 'missing' }>;
  readonly action: string;
}

export function SentForm({ frame, delivery, answer, action }: SentFormProps) {
  return (
    <Shell frame={frame} delivery={delivery} title={answer.title}>
      <h1>{answer.title}</h1>
      {answer.kind === 'sent' ? (
        <>
          <p className="lead" role="status">
            {answer.thanks}
          </p>
          <p className="more">
            <a href={encodeURI(answer.back)}>Back</a>
          </p>
        </>
      ) : (
        <form method="post" action={action} className="form">
          <p className="problem" role="alert">
            Something is missing. Nothing was sent yet.
          </p>
          {answer.fields.map((field, index) => (
            <FormField
              key={field.label}
              field={field}
              name={`f${index}`}
              id={`f${index}`}
              value={answer.values[index] ?? ''}
              problem={answer.problems[index]}
            />
          ))}
          <button className="button justify-self-start" type="submit">
            {answer.button}
          </button>
        </form>
      )}
    </Shell>
  );
}
