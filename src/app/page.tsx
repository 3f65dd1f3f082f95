import { redirect } from 'next/navigation';
import { frameOf } from './_server/page';

/** The first stop of the ruler that the person may go to. */
export default async function Home() {
  const { frame } = await frameOf();
  if (frame.stops.needs) redirect('/needs');
  if (frame.stops.arrivals) redirect('/arrivals');
  redirect(frame.stops.orders ? '/orders' : '/items');
}
