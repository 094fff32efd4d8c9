import type { Frame } from '@/services';
import { Field } from './field';
import { type Delivery, Shell } from './shell';
import { say } from './wording';

interface PassphraseViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Where a right passphrase leads. */
  readonly next: string;
  readonly problem: string | null;
}

/** The page where a passphrase is typed: a plain form that works without scripts. */
export function PassphraseView({ frame, delivery, next, problem }: PassphraseViewProps) {
  const words = say().passphrase;
  return (
    <Shell frame={frame} delivery={delivery} title={words.title}>
      <h1>{words.title}</h1>
      <p className="lead">
        {words.lead} {next !== '/' && say().signIn.back}
      </p>
      <form method="post" action={'/passphrase'} className="mt-8 grid max-w-sm gap-5">
        <input type="hidden" name="next" value={next} />
        <Field
          name="passphrase"
          label={words.label}
          type="text"
          value=""
          complete="off"
          problem={problem ?? undefined}
        />
        <button className="button justify-self-start" type="submit">
          {words.button}
        </button>
        {delivery.walk && <p className="hint">{say().frame.onWalk}</p>}
      </form>
    </Shell>
  );
}
