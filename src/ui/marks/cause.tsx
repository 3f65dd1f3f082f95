/** Why there is a need: a line glyph with words. */
export function Cause() {
  return (
    <span className="inline-flex items-center gap-2 whitespace-nowrap">
      <svg
        width="13"
        height="13"
        viewBox="0 0 13 13"
        aria-hidden="true"
        className="fill-none stroke-ink"
        strokeWidth="1.3"
      >
        <path d="M1.5 2.5h10M3 5l3.5 6L10 5" />
      </svg>
      below min
    </span>
  );
}
