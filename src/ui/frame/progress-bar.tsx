/** How far something is, as a bar; `className` gives its size. */
export const ProgressBar = ({ name, share, className }: { name: string; share: number; className: string }) => (
  <span
    role="progressbar"
    aria-label={name}
    aria-valuemin={0}
    aria-valuemax={100}
    aria-valuenow={Math.round(share * 100)}
    className={`border border-field bg-sheet ${className}`}
  >
    <span className="block h-full bg-action" style={{ width: `${share * 100}%` }} />
  </span>
);
