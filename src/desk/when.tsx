/** A moment by the clock of whoever reads. */
export const When = ({ at }: { readonly at: string }) => (
  <time dateTime={at}>
    {new Date(at).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })}
  </time>
);
