import type { Frame } from '@/services';
import { Field } from './field';
import { type Delivery, Shell } from './shell';

interface PassphraseViewProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Where a right passphrase leads. */
  readonly next: string;
  readonly problem: string | null;
}

/** The page where a passphrase is typed: a plain form that works without scripts. */
export function PassphraseView({ frame, delivery, next, problem }: PassphraseViewProps) {
  return (
    <Shell frame={frame} delivery={delivery} title="Passphrase">
      <h1>Passphrase</h1>
      <p className="lead">
        Type the passphrase you were given. {next !== '/' && 'Afterwards you will be back where you were.'}
      </p>
      <form method="post" action={'/passphrase'} className="mt-8 grid max-w-sm gap-5">
        <input type="hidden" name="next" value={next} />
        <Field
          name="passphrase"
          label="Passphrase"
          type="text"
          value=""
          complete="off"
          problem={problem ?? undefined}
        />
        <button className="button justify-self-start" type="submit">
          Go on
        </button>
        {delivery.walk && (
          <p className="hint">On a walk nothing is sent. Press the button to see what it would do.</p>
        )}
      </form>
    </Shell>
  );
}
