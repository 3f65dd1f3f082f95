import type { Column } from '@/core/sheets';
import type { SqlValue, Tx } from '../../sql';
import { readRecords, upsertMany, type Wanted } from './record';

// The minimum is kept in minor units; how many of them a unit of the currency has is the caller's to know.
const sql = {
  select: `s.code, s.name, s.address, s.contact, s.email, s.phone, s.language, s.currency, s.payment_terms,
           s.payment_days, s.discount_percent, s.discount_days, s.delivery_terms, s.incoterm, s.incoterm_place,
           s.freight_payer, s.order_minimum_minor AS order_minimum, s.minimum_weight_kg, s.minimum_quantity,
           s.freight_fixed, s.freight_per_kg, s.freight_free_from, s.order_days, TIME_FORMAT(s.cut_off, '%H:%i') AS cut_off,
           s.lead_time_days, s.lead_time_kind, s.order_text, s.tray_rule, s.status, COALESCE(w.name, '') AS shipping_way,
           s.minimum_base, s.over_percent, s.under_percent, s.date_tolerance_days, s.tax_regime, s.matching, COALESCE(u.login, '') AS buyer`,
  from: 'supplier s LEFT JOIN shipping_way w ON w.id = s.shipping_way_id LEFT JOIN app_user u ON u.id = s.buyer_id',
  id: 's.id',
  key: 's.code',
};

export const readSupplierRecords = (tx: Tx, columns: readonly Column[], wanted: Wanted, lock: boolean) =>
  readRecords(tx, columns, sql, wanted, lock);

/** Columns in the order that rows are given in. */
export const supplierColumns = [
  ...['code', 'name', 'address', 'contact', 'email', 'phone', 'language', 'currency', 'payment_terms', 'payment_days'],
  ...['discount_percent', 'discount_days', 'delivery_terms', 'incoterm', 'incoterm_place', 'freight_payer'],
  ...['order_minimum_minor', 'minimum_weight_kg', 'minimum_quantity', 'freight_fixed', 'freight_per_kg'],
  ...['freight_free_from', 'order_days', 'cut_off', 'lead_time_days', 'lead_time_kind', 'order_text', 'tray_rule'],
  ...[
    'status',
    'shipping_way_id',
    'minimum_base',
    'over_percent',
    'under_percent',
    'date_tolerance_days',
    'tax_regime',
    'matching',
  ],
  'buyer_id',
] as const;

export const upsertSuppliers = (tx: Tx, rows: readonly (readonly SqlValue[])[]) =>
  upsertMany(tx, 'supplier', supplierColumns, rows, 'version = supplier.version + 1');
