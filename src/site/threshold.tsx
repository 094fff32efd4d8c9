import type { Step } from '@/services';

interface ThresholdProps {
  readonly reason: string | null;
  readonly step: Step | null;
}

/** The reason and the next step, where a visitor stands before something closed. */
export function Threshold({ reason, step }: ThresholdProps) {
  if (reason === null && step === null) return null;
  return (
    <div className="threshold">
      {reason !== null && <p>{reason}</p>}
      {step && <StepButton step={step} />}
    </div>
  );
}

export function StepButton({ step }: { readonly step: Step }) {
  switch (step.kind) {
    case 'link':
      return (
        <a className="button" href={step.address}>
          {step.label}
        </a>
      );
    case 'outside':
      return (
        <a className="button" href={step.url} rel="noopener">
          {step.label}
        </a>
      );
    case 'follow':
      return (
        <form method="post" action={step.address}>
          <input type="hidden" name="next" value={step.back} />
          <button className="button" type="submit">
            {step.label}
          </button>
        </form>
      );
    default:
      return step satisfies never;
  }
}
