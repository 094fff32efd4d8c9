/** What a form or button would have done, on a walk. */
import type { Frame } from '@/services';
import { type Delivery, Shell } from './shell';

interface WouldProps {
  readonly frame: Frame;
  readonly delivery: Delivery;
  /** Behind "This would". */
  readonly what: string;
  readonly typed: readonly { readonly name: string; readonly value: string }[];
  readonly back: string;
}

export function WouldView({ frame, delivery, what, typed, back }: WouldProps) {
  return (
    <Shell frame={frame} delivery={delivery} title="Nothing was sent">
      <h1>Nothing was sent</h1>
      <p className="lead">This is a walk. On the site, this would {what}.</p>
      {typed.length > 0 && (
        <dl className="facts">
          {typed.map(({ name, value }) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      )}
      <p className="more">
        <a href={back}>Back</a>
      </p>
    </Shell>
  );
}
