/** How the form of a kind of record is laid out: what most records need is shown, the rest is folded under a name. */
export type Section = { readonly title: string; readonly keys: readonly string[]; readonly folded?: true };

const all: Readonly<Record<string, readonly Section[]>> = {
  items: [
    {
      title: '',
      keys: [
        'number',
        'name',
        'category',
        'unit',
        'unit_name',
        'status',
        'sale_price',
        'sale_with_tax',
        'sale_tax_rate',
        'standard_cost',
        'buyer_note',
      ],
    },
    {
      title: 'Maker and measures',
      keys: ['maker', 'maker_number', 'weight_kg', 'volume_l', 'edition', 'successor', 'sale_decimals', 'tracking'],
      folded: true,
    },
    {
      title: 'Buying and books',
      keys: [
        'purpose',
        'buyer',
        'stock_kept',
        'use_recorded',
        'promise_rule',
        'availability',
        'straight',
        'straight_supplier',
        'tax_category',
        'account',
        'department',
      ],
      folded: true,
    },
    { title: 'Customs', keys: ['hs_code', 'origin'], folded: true },
    { title: 'Dangerous goods', keys: ['un_number', 'hazard_class', 'packing_group', 'hazard_name'], folded: true },
  ],
  suppliers: [
    {
      title: '',
      keys: [
        'code',
        'name',
        'currency',
        'status',
        'lead_time_days',
        'lead_time_kind',
        'order_days',
        'cut_off',
        'email',
        'phone',
        'contact',
        'address',
      ],
    },
    {
      title: 'Minimum and freight',
      keys: [
        'order_minimum',
        'minimum_base',
        'minimum_weight_kg',
        'minimum_quantity',
        'freight_payer',
        'freight_fixed',
        'freight_per_kg',
        'freight_free_from',
      ],
      folded: true,
    },
    {
      title: 'Payment and delivery',
      keys: [
        'payment_terms',
        'payment_days',
        'discount_percent',
        'discount_days',
        'delivery_terms',
        'incoterm',
        'incoterm_place',
        'shipping_way',
        'tax_regime',
      ],
      folded: true,
    },
    { title: 'Tolerances', keys: ['over_percent', 'under_percent', 'date_tolerance_days'], folded: true },
    { title: 'Orders', keys: ['language', 'order_text', 'tray_rule', 'buyer'], folded: true },
  ],
  locations: [
    {
      title: '',
      keys: [
        'code',
        'name',
        'kind',
        'status',
        'address',
        'invoice_address',
        'supplied_by',
        'van_days',
        'travel_days',
        'working_days',
        'receiving_days',
      ],
    },
    { title: 'Where it lies', keys: ['latitude', 'longitude'], folded: true },
  ],
  sources: [
    {
      title: '',
      keys: [
        'item',
        'supplier',
        'pack',
        'supplier_item_number',
        'supplier_item_name',
        'rank',
        'minimum_quantity',
        'multiple_packs',
        'rounding',
      ],
    },
    { title: 'Only where it differs', keys: ['lead_time_days', 'share_percent', 'break_scope'], folded: true },
  ],
  'policy-defaults': [
    { title: '', keys: ['category', 'policy', 'min', 'max', 'order_quantity', 'cover_days'] },
    { title: 'Rules', keys: ['trigger', 'refill', 'rounding', 'supply', 'display_minimum', 'reserve'] },
    { title: 'Service target', keys: ['target_kind', 'target_percent'] },
    {
      title: 'Lot-for-lot and periodic',
      keys: ['safety_stock', 'window_days', 'use_stock', 'keep_safety'],
      folded: true,
    },
  ],
  policies: [
    { title: '', keys: ['item', 'location', 'policy', 'min', 'max', 'order_quantity', 'cover_days'] },
    {
      title: 'Rules',
      keys: ['trigger', 'refill', 'rounding', 'supply', 'sent_from', 'display_minimum', 'reserve'],
      folded: true,
    },
    { title: 'Service target', keys: ['target_kind', 'target_percent'], folded: true },
    {
      title: 'Lot-for-lot and periodic',
      keys: ['safety_stock', 'window_days', 'use_stock', 'keep_safety'],
      folded: true,
    },
  ],
  packs: [
    { title: '', keys: ['item', 'pack', 'content', 'of_pack', 'unit', 'buying', 'selling', 'sending'] },
    { title: 'Measures', keys: ['weight_kg', 'volume_l'], folded: true },
  ],
};

/** Sections of a form; a kind without a layout shows all its fields. */
export const sectionsOf = (sheet: string, keys: readonly string[]): readonly Section[] =>
  all[sheet] ?? [{ title: '', keys }];

/** Columns that the list of a kind shows, in their order; a kind that is not here shows all. */
export const listColumns: Readonly<Record<string, readonly string[]>> = {
  packs: ['pack', 'content', 'of_pack', 'unit', 'buying', 'selling', 'sending'],
  barcodes: ['code', 'kind', 'pack'],
  sources: [
    'item',
    'supplier',
    'rank',
    'pack',
    'supplier_item_number',
    'minimum_quantity',
    'multiple_packs',
    'lead_time_days',
  ],
  prices: [
    'item',
    'supplier',
    'from_packs',
    'amount',
    'per_quantity',
    'pack',
    'discount_percent',
    'valid_from',
    'valid_to',
    'reason',
  ],
  'sale-prices': ['pack', 'location', 'amount', 'with_tax', 'tax_rate'],
  places: ['location', 'shelf', 'straight', 'straight_supplier'],
  'source-places': ['item', 'supplier', 'location', 'rank', 'share_percent'],
  kits: ['component', 'quantity'],
  families: ['item', 'value_1', 'value_2'],
  contacts: ['name', 'kind', 'email', 'phone', 'address', 'note'],
  closures: ['from_day', 'to_day', 'name'],
  seasons: ['location', 'from_day', 'to_day', 'every_year', 'min', 'max'],
  'policy-defaults': ['category', 'policy', 'cover_days', 'trigger', 'refill', 'rounding', 'supply', 'target_percent'],
  locations: ['code', 'name', 'kind', 'supplied_by', 'van_days', 'working_days', 'receiving_days', 'status'],
};
