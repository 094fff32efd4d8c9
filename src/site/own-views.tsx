/** Pages of a member's own: their account by itself, their keys, a form that was sent. */
import type { AccountView, FormAnswer, Frame, Key } from '@/services';
import { AccountForm } from './account-form';
import { Field } from './field';
import { FormField } from './form-field';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface AccountViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  readonly account: AccountView;
  readonly problems: Readonly<Record<string, string>>;
}

export const AccountPage = ({ frame, delivery, account, problems }: AccountViewProps) => (
  <Shell frame={frame} delivery={delivery} title={say().account.title}>
    <h1>{say().account.title}</h1>
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
  const words = say().keys;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{say().account.keys}</h1>
      <p className="lead">{words.lead}</p>
      {made && (
        <div className="closed" role="status">
          <h2>{made.name}</h2>
          <p>{made.use === 'feed' ? words.feedAddress : words.token}</p>
          <p>
            <code className="key">
              {made.use === 'feed' ? `${origin}/feed.xml?key=${made.key}` : made.key}
            </code>
          </p>
          <p className="hint">{words.once}</p>
        </div>
      )}
      <form method="post" action={'/me/keys'} className="form">
        <Field
          name="name"
          label={words.what}
          type="text"
          value=""
          complete="off"
          problem={problem ?? undefined}
        />
        <fieldset className="grid gap-2">
          <legend className="sr-only">{words.either}</legend>
          <label className="tick">
            <input type="radio" name="use" value="feed" defaultChecked /> {words.feed}
          </label>
          <label className="tick">
            <input type="radio" name="use" value="api" /> {words.app}
          </label>
        </fieldset>
        <button className="button justify-self-start" type="submit">
          {words.make}
        </button>
      </form>
      {keys.length > 0 && (
        <ul className="keys">
          {keys.map((key) => (
            <li key={key.id}>
              <span>
                {key.name} <span className="hint">{key.use === 'feed' ? words.ofFeed : words.ofApp}</span>
              </span>
              <form method="post" action="/me/keys/revoke">
                <input type="hidden" name="id" value={key.id} />
                <button className="plain" type="submit" aria-label={words.takeBackOf(key.name)}>
                  {words.takeBack}
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
            <a href={encodeURI(answer.back)}>{say().frame.back}</a>
          </p>
        </>
      ) : (
        <form method="post" action={action} className="form">
          <p className="problem" role="alert">
            {say().form.missing}
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
