import type { AccountView } from '@/services';
import { OwnField } from './own-field';

interface AccountFormProps {
  readonly account: AccountView;
  /** By field, and `form` for all of it. */
  readonly problems: Readonly<Record<string, string>>;
}

/** What a member sees of themselves, and the form of the fields that they fill in. */
export function AccountForm({ account, problems }: AccountFormProps) {
  return (
    <div className="part">
      <dl className="facts">
        <dt>Name</dt>
        <dd>{account.name}</dd>
        <dt>Mail address</dt>
        <dd>{account.email}</dd>
        <dt>Level</dt>
        <dd>{account.level ?? 'none'}</dd>
        <dt>Groups</dt>
        <dd>{account.groups.join(', ') || 'none'}</dd>
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
            Keep these
          </button>
        </form>
      )}
      <p className="more">
        <a href={account.keys}>Your own feed, and keys for apps</a>
      </p>
    </div>
  );
}
