import { isFounded } from '@/data/repositories/company';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';

/** Whether there is a company to sign in to. */
export const readFounded = (deps: Deps): Promise<boolean> => readSnapshot(deps.pool, isFounded);
