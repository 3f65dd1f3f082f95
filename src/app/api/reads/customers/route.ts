import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { findCustomers } from '@/services/promise/findCustomers';

/** Customers by what was typed of their name or mail. */
export const GET = (request: Request) =>
  read(request, (actor, query) => findCustomers(deps(), actor, (query.get('q') ?? '').slice(0, 100)));
