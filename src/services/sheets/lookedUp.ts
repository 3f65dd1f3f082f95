import type { InTheWay } from '@/core/sheets';
import type {
  ItemReference,
  LocationReference,
  PackReference,
  SupplierReference,
} from '@/data/repositories/sheets/references';

/** Everything that the rows of a step name, looked up at once. */
export type References = {
  readonly items: ReadonlyMap<string, ItemReference>;
  readonly suppliers: ReadonlyMap<string, SupplierReference>;
  readonly locations: ReadonlyMap<string, LocationReference>;
  /** By item id, a space and the pack's name. */
  readonly packs: ReadonlyMap<string, PackReference>;
  readonly families: ReadonlyMap<
    string,
    { id: number; name: string; option1: string; option2: string; priceGroup: string }
  >;
  /** By item id, a space and supplier id. */
  readonly sources: ReadonlyMap<string, { id: number }>;
  readonly users: ReadonlyMap<string, { id: number }>;
  readonly shippingWays: ReadonlyMap<string, { id: number }>;
  /** Ids of records whose unit can't be changed any more. */
  unitInUse: ReadonlySet<number>;
  /** Ids of items that there is stock of. */
  withStock: ReadonlySet<number>;
  /** What stops a record from being closed, by its id. */
  inTheWay: ReadonlyMap<number, readonly InTheWay[]>;
};
