/** Fields of a form that asks for what somebody did within a span of days. */
export function AskedFields(props: {
  people: readonly { readonly id: number; readonly name: string }[];
  asked: { readonly userId: number | null; readonly from: string; readonly to: string };
  /** What else is asked, between the person and the days. */
  children?: React.ReactNode;
}) {
  const { people, asked } = props;
  return (
    <>
      <select name="who" className="entry" aria-label="By" defaultValue={asked.userId ?? ''}>
        <option value="">Everybody</option>
        {people.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
      {props.children}
      <input type="date" name="from" className="entry" aria-label="From" defaultValue={asked.from} />
      <input type="date" name="to" className="entry" aria-label="To" defaultValue={asked.to} />
      <button type="submit" className="chip">
        Show
      </button>
    </>
  );
}
