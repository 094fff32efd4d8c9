/** A small lock, for what is shown and closed. */
export function LockSign() {
  return (
    <svg className="lock" viewBox="0 0 16 16" aria-hidden="true">
      <path d="M4.5 7V5a3.5 3.5 0 0 1 7 0v2M3 7h10v7H3z" />
    </svg>
  );
}
