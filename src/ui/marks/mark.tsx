/** Our sign: goods on two shelves. */
export function Mark() {
  return (
    <svg viewBox="0 0 20 20" className="size-5" aria-hidden="true" fill="currentColor">
      <path d="M2 4h5v4H2zM9 5h3v3H9zM14 2h4v6h-4zM1 9h18v1.3H1zM2 13h6v4H2zM10 12h3v5h-3zM15 14h3v3h-3zM1 17.7h18V19H1z" />
    </svg>
  );
}
