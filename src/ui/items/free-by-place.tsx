import type { Format } from '../format';

/** What is free at each place: places are never netted against each other. */
export function FreeByPlace({
  places,
  format,
}: {
  places: readonly { readonly name: string; readonly free: number }[];
  format: Format;
}) {
  return (
    <span className="flex max-w-80 flex-wrap gap-x-3">
      {places.map((p) => (
        <span key={p.name} className="whitespace-nowrap">
          <span className="second">{p.name}</span>{' '}
          <span className={p.free < 0 ? 'font-semibold text-stop' : 'font-semibold'}>{format.quantity(p.free)}</span>
        </span>
      ))}
    </span>
  );
}
