/** What a step has brought about, and why the last one was refused; nothing of the kind takes no room. */
export function Said({ lines, fault }: { lines: readonly string[]; fault: string }) {
  return (
    <>
      {lines.length > 0 && (
        <ul className="px-4 pt-2" role="status">
          {lines.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
      {fault && (
        <p className="fault px-4 pt-2" role="alert">
          {fault}
        </p>
      )}
    </>
  );
}
