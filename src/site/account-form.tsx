import type { AccountView } from '@/services';
import { OwnField } from './own-field';
import { say } from './wording';

interface AccountFormProps {
  readonly account: AccountView;
  /** By field, and `form` for all of it. */
  readonly problems: Readonly<Record<string, string>>;
}

/** What a member sees of themselves, and the form of the fields that they fill in. */
export function AccountForm({ account, problems }: AccountFormProps) {
  const words = say().account;
  return (
    <div className="part">
      <dl className="facts">
        <dt>{words.name}</dt>
        <dd>{account.name}</dd>
        <dt>{words.email}</dt>
        <dd>{account.email}</dd>
        <dt>{words.level}</dt>
        <dd>{account.level ?? words.none}</dd>
        <dt>{words.groups}</dt>
        <dd>{account.groups.join(', ') || words.none}</dd>
      </dl>
      {account.fields.length > 0 && (
        <form method="post" action={account.action} className="form">
          {problems.form && (
            <p className="problem" role="alert">
              {problems.form}
            </p>
          )}
          <input type="hidden" name="next" value={account.back} />
          {account.fields.map(({ field, value }) => (
            <OwnField key={field.id} field={field} value={value} problem={problems[field.id]} />
          ))}
          <button className="button justify-self-start" type="submit">
            {words.keep}
          </button>
        </form>
      )}
      <p className="more">
        <a href={account.keys}>{words.keys}</a>
      </p>
    </div>
  );
}
