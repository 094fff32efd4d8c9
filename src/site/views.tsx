/** What each answer looks like. Nothing here decides; what was withheld never got this far. */
import type { PageAnswer, Step } from '@/services';
import { type Delivery, Shell } from './shell';

type Of<Kind extends PageAnswer['kind']> = Extract<PageAnswer, { kind: Kind }>;

export function PageView({ answer, delivery }: { readonly answer: Of<'page'>; readonly delivery: Delivery }) {
  return (
    <Shell
      frame={answer.frame}
      delivery={delivery}
      title={answer.title}
      description={answer.summary}
      canonical={delivery.walk ? '' : encodeURI(answer.address)}
    >
      <article>
        {!answer.hasOwnHeading && (
          <>
            <h1>{answer.title}</h1>
            {answer.summary && <p className="lead">{answer.summary}</p>}
          </>
        )}
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: sanitised where it was rendered */}
        <div className="prose" dangerouslySetInnerHTML={{ __html: answer.html }} />
      </article>
    </Shell>
  );
}

export function TeaserView({
  answer,
  delivery,
}: {
  readonly answer: Of<'teaser'>;
  readonly delivery: Delivery;
}) {
  return (
    <Shell frame={answer.frame} delivery={delivery} title={answer.title}>
      <article>
        <h1>{answer.title}</h1>
        {answer.text && <p className="lead">{answer.text}</p>}
        <Threshold reason={answer.reason} step={answer.step} />
      </article>
    </Shell>
  );
}

export function MessageView({
  answer,
  delivery,
}: {
  readonly answer: Of<'message'>;
  readonly delivery: Delivery;
}) {
  return (
    <Shell frame={answer.frame} delivery={delivery} title="Not open to you">
      <h1>This page isn’t open to you</h1>
      <Threshold reason={answer.reason} step={answer.step} />
    </Shell>
  );
}

export function MissingView({
  answer,
  delivery,
}: {
  readonly answer: Of<'missing'>;
  readonly delivery: Delivery;
}) {
  return (
    <Shell frame={answer.frame} delivery={delivery} title="Nothing here">
      <h1>There is nothing at this address</h1>
      <p className="lead">Check the address for a slip, or start again from the menu above.</p>
    </Shell>
  );
}

/** The reason and the next step, where a visitor stands before something closed. */
function Threshold({ reason, step }: { readonly reason: string | null; readonly step: Step | null }) {
  if (reason === null && step === null) return null;
  return (
    <div className="threshold">
      {reason !== null && <p>{reason}</p>}
      {step?.kind === 'sign in' && (
        <a className="button" href={step.address}>
          Sign in
        </a>
      )}
      {step?.kind === 'passphrase' && (
        <a className="button" href={step.address}>
          Type a passphrase
        </a>
      )}
      {step?.kind === 'item' && (
        <a className="button" href={step.address}>
          {step.title}
        </a>
      )}
    </div>
  );
}
