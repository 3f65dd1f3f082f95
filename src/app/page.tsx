import { redirect } from 'next/navigation';
import { rightsOfActor } from '@/core/people';
import { frameOf } from './_server/page';

/** The first stop of the ruler that the person may go to. */
export default async function Home() {
  const rights = rightsOfActor((await frameOf()).actor);
  if (rights.includes('needs.read')) redirect('/today');
  if (rights.includes('goods.receive')) redirect('/arrivals');
  redirect(rights.includes('orders.read') ? '/orders' : '/items');
}
