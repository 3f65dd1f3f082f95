import Form from 'next/form';

/** Search by name or number; keeps the chosen place in the address. */
export function SearchForm({ action, search, at }: { action: string; search: string; at: string }) {
  return (
    <Form action={action} className="ml-auto flex gap-2" role="search">
      {at && <input type="hidden" name="at" value={at} />}
      <input
        name="q"
        key={search}
        className="entry w-52"
        defaultValue={search}
        placeholder="name or number"
        aria-label="Search items"
      />
      <button type="submit" className="chip">
        Search
      </button>
    </Form>
  );
}
