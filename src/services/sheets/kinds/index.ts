import type { SheetKind, SheetName } from '../sheetKind';
import { barcodes } from './barcodes';
import { budgets } from './budgets';
import { categories } from './categories';
import { charges } from './charges';
import { closures, holidays } from './closedDays';
import { contacts } from './contacts';
import { customerOrders } from './customerOrders';
import { deliveries } from './deliveries';
import { demand } from './demand';
import { dutyRates } from './dutyRates';
import { families } from './families';
import { itemPlaces } from './itemPlaces';
import { items } from './items';
import { jobMaterials } from './jobMaterials';
import { kits } from './kits';
import { locations } from './locations';
import { openingStock } from './openingStock';
import { orders } from './orders';
import { packPatterns } from './packPatterns';
import { packs } from './packs';
import { policies } from './policies';
import { policyDefaults } from './policyDefaults';
import { prices } from './prices';
import { rates } from './rates';
import { reasons } from './reasons';
import { salePrices } from './salePrices';
import { seasons } from './seasons';
import { shippingWays } from './shippingWays';
import { sourcePlaces } from './sourcePlaces';
import { sources } from './sources';
import { suppliers } from './suppliers';
import { taxRates } from './taxRates';

/** Every kind of spreadsheet, in the order in which a new company brings them: what others name comes first. */
export const sheetKinds: Readonly<Record<SheetName, SheetKind>> = {
  locations,
  suppliers,
  items,
  packs,
  barcodes,
  families,
  kits,
  sources,
  prices,
  rates,
  'opening-stock': openingStock,
  policies,
  'policy-defaults': policyDefaults,
  seasons,
  deliveries,
  demand,
  orders,
  'customer-orders': customerOrders,
  categories,
  'pack-patterns': packPatterns,
  'sale-prices': salePrices,
  places: itemPlaces,
  'source-places': sourcePlaces,
  contacts,
  closures,
  holidays,
  'shipping-ways': shippingWays,
  charges,
  'duty-rates': dutyRates,
  'tax-rates': taxRates,
  'job-materials': jobMaterials,
  budgets,
  reasons,
};

export const sheetKindOf = (name: string): SheetKind | null =>
  Object.hasOwn(sheetKinds, name) ? sheetKinds[name as SheetName] : null;
