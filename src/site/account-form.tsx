import { dayInWords, isDay } from '@/core';
import type { AccountView } from '@/services';

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
          {account.fields.map(({ field, value }) => {
            const id = `field-${field.id}`;
            const problem = problems[field.id];
            const about = {
              id,
              name: id,
              'aria-invalid': problem ? true : undefined,
              'aria-describedby': problem ? `${id}-problem` : undefined,
            };
            const written = value === null ? '' : String(value);
            return (
              <p key={field.id} className="grid gap-1.5">
                <label htmlFor={id}>{field.name}</label>
                {field.type === 'choice' || field.type === 'yes/no' ? (
                  <select {...about} defaultValue={written}>
                    <option value="">Not filled in</option>
                    {field.type === 'choice' ? (
                      field.choices.map((choice) => <option key={choice}>{choice}</option>)
                    ) : (
                      <>
                        <option value="true">yes</option>
                        <option value="false">no</option>
                      </>
                    )}
                  </select>
                ) : (
                  <input
                    {...about}
                    type={field.type === 'date' ? 'date' : 'text'}
                    inputMode={field.type === 'number' ? 'decimal' : undefined}
                    defaultValue={written}
                  />
                )}
                {field.type === 'date' && isDay(written) && (
                  <span className="hint">{dayInWords(written)}</span>
                )}
                {problem && (
                  <span className="problem" id={`${id}-problem`}>
                    {problem}
                  </span>
                )}
              </p>
            );
          })}
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
