import type { Metadata } from 'next';
import Link from 'next/link';
import { redirect } from 'next/navigation';
import { deps } from '@/app/_server/deps';
import { frameOf, placeOf, requestFormat, type SearchParams, shown, text } from '@/app/_server/page';
import { may } from '@/core/people';
import { readArrivals } from '@/services/stock/readArrivals';
import { countOf, plural } from '@/ui/format';
import { ExportLinks } from '@/ui/frame/export-links';
import { ListBar, WholeList } from '@/ui/frame/list';
import { Refused } from '@/ui/frame/refused';
import { Notice } from '@/ui/frame/states';

export const metadata: Metadata = { title: 'Arrivals' };

export default async function ArrivalsPage({ searchParams }: { searchParams: SearchParams }) {
  const params = await searchParams;
  const { actor } = await frameOf();
  const format = await requestFormat();
  const wanted = text(params.order);
  const booked = text(params.booked);
  const above = Number(/^\d{1,4}$/.exec(text(params.above))?.[0] ?? 0);
  const orderId = /^\d{1,10}$/.test(wanted) ? Number(wanted) : undefined;
  const { value, failure } = shown(await readArrivals(deps(), actor, { locationId: await placeOf(params), orderId }));
  if (failure) return <Refused failure={failure} format={format} />;
  const { arrivals, today } = value;
  const [only] = arrivals;
  if (orderId !== undefined && arrivals.length === 1 && only) redirect(`/arrivals/${only.orderId}/${only.locationId}`);
  return (
    <WholeList>
      <ListBar title={`${countOf(arrivals.length, 'arrival')} expected`}>
        {orderId !== undefined && (
          <Link className="link" href="/arrivals">
            of one order; show all
          </Link>
        )}
        <span className="ml-auto">
          <ExportLinks of="Arrivals" path={`/api/exports/arrivals?at=${encodeURIComponent(text(params.at))}`} />
        </span>
      </ListBar>
      {/^R\d{4}-\d{4,6}$/.test(booked) && (
        <p className="border-b border-rule px-4 py-2 font-semibold text-action" role="status">
          Booked in as {booked}.
          {above > 0 && (
            <>
              {' '}
              <Link className="link font-normal" href="/stock?show=above">
                {countOf(above, 'item')} came above the maximum by it.
              </Link>
            </>
          )}
        </p>
      )}
      {arrivals.length === 0 ? (
        <Notice title="Nothing is expected">
          Approved and sent orders stand here until their goods are booked in.
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th>Expected</th>
              <th>Where</th>
              <th>Supplier</th>
              <th className="max-sm:hidden">Order</th>
              <th className="max-md:hidden">What</th>
              <th aria-label="Actions" />
            </tr>
          </thead>
          <tbody>
            {arrivals.map((a) => {
              const due = a.expectedDate ? format.due(a.expectedDate, today) : null;
              return (
                <tr key={`${a.orderId}/${a.locationId}`} className="two">
                  <td className={due && due.late > 0 ? 'font-semibold text-stop' : 'font-semibold'}>
                    {due?.text ?? '–'}
                  </td>
                  <td>{a.location}</td>
                  <td>{a.supplier}</td>
                  <td className="max-sm:hidden">
                    {may(actor, 'orders.read').ok ? (
                      <Link className="link" href={`/orders/${a.orderId}`}>
                        {a.number}
                      </Link>
                    ) : (
                      a.number
                    )}
                    {!a.sent && <span className="second block">not sent yet</span>}
                  </td>
                  <td className="second max-md:hidden">
                    {a.lines
                      .slice(0, 3)
                      .map((l) => `${format.quantity(l.openPacks)} ${plural(l.packName, l.openPacks)} ${l.description}`)
                      .join('; ')}
                    {a.lines.length > 3 && ` and ${a.lines.length - 3} more`}
                  </td>
                  <td className="figure">
                    <Link
                      className="btn btn-outline"
                      href={`/arrivals/${a.orderId}/${a.locationId}`}
                      aria-label={`Book in order ${a.number} at ${a.location}`}
                    >
                      Book in
                    </Link>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </WholeList>
  );
}
