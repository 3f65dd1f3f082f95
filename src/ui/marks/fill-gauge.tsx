/** How far a sum has come towards a minimum. */
export function FillGauge({ value, target, label }: { value: number; target: number; label: string }) {
  const share = target <= 0 ? 1 : Math.min(1, value / target);
  return (
    <svg width="90" height="5" viewBox="0 0 90 5" role="img" aria-label={label} className="inline-block align-middle">
      <rect width="90" height="5" className="fill-rule" />
      <rect width={90 * share} height="5" className="fill-ink" />
    </svg>
  );
}
