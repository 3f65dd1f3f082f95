/** Quillon Yarn & Cloth, an invented haberdashery. Every name, address and person here is made up. */
export const company = {
  name: 'Quillon Yarn & Cloth',
  currency: 'EUR',
  timeZone: 'Europe/Berlin',
  invoiceAddress: 'Quillon Yarn & Cloth\nAccounts, Wendel Yard 3\n00417 Quillon',
};

export const locations = [
  {
    code: 'HS',
    name: 'Harbour Street',
    kind: 'shop',
    address: 'Quillon Harbour Street\nHarbour Street 18\n00415 Quillon',
    weight: 1,
  },
  {
    code: 'OM',
    name: 'Old Mill',
    kind: 'shop',
    address: 'Quillon at the Old Mill\nMill Lane 2\n00431 Ferrowby',
    weight: 0.8,
  },
  {
    code: 'MH',
    name: 'Market Hall',
    kind: 'shop',
    address: 'Quillon, stall 11\nMarket Hall\n00418 Quillon',
    weight: 0.4,
  },
  {
    code: 'WY',
    name: 'Wendel Yard',
    kind: 'warehouse',
    address: 'Quillon stores\nWendel Yard 3\n00417 Quillon',
    weight: 2,
  },
] as const;

export const DEMO_PASSWORD = 'quillon';
export const people = [
  { login: 'mira', name: 'Mira Rook', initials: 'MR', role: 'buyer', limit: 250_000, at: null },
  { login: 'otto', name: 'Otto Quillon', initials: 'OQ', role: 'owner', limit: null, at: null },
  { login: 'jun', name: 'Jun Abara', initials: 'JA', role: 'shop', limit: 0, at: 'MH' },
  { login: 'edda', name: 'Edda Lind', initials: 'EL', role: 'bookkeeper', limit: 0, at: null },
] as const;

export const suppliers = [
  {
    code: 'HOL',
    name: 'Hollinmere Spinners',
    days: 6,
    kind: 'working',
    minimum: 40_000,
    payment: '14 days 2 %, 30 days net',
    delivery: 'DAP, parcel',
    town: 'Fellside 4, 10220 Hollinmere',
  },
  {
    code: 'NAR',
    name: 'Narrowick Wool',
    days: 4,
    kind: 'working',
    minimum: 0,
    payment: '30 days net',
    delivery: 'DAP, parcel',
    town: 'Carding Row 9, 10871 Narrowick',
  },
  {
    code: 'TES',
    name: 'Tesselow Weaving',
    days: 15,
    kind: 'working',
    minimum: 0,
    payment: '30 days net',
    delivery: 'FCA Tesselow',
    town: 'Loom Street 21, 20510 Tesselow',
  },
  {
    code: 'ISH',
    name: 'Ishimura-dai Needles',
    days: 56,
    kind: 'calendar',
    minimum: 60_000,
    payment: 'in advance',
    delivery: 'CIP Quillon',
    town: 'Ishimura-dai 5-2',
  },
  {
    code: 'BRI',
    name: 'Brindlemoor Ribbon',
    days: 8,
    kind: 'working',
    minimum: 15_000,
    payment: '30 days net',
    delivery: 'DAP, parcel',
    town: 'Sash Walk 1, 11402 Brindlemoor',
  },
  {
    code: 'QUE',
    name: 'Quernstone Thread',
    days: 5,
    kind: 'working',
    minimum: 10_000,
    payment: '30 days net',
    delivery: 'DAP, parcel',
    town: 'Bobbin Court 7, 11980 Quernstone',
  },
  {
    code: 'OST',
    name: 'Ostrelund Fastenings',
    days: 12,
    kind: 'calendar',
    minimum: 20_000,
    payment: '60 days net',
    delivery: 'DAP, pallet',
    town: 'Ostrelund 33',
  },
  {
    code: 'PEL',
    name: 'Pellgrave Machines',
    days: 10,
    kind: 'working',
    minimum: 0,
    payment: '30 days net',
    delivery: 'DDP Quillon',
    town: 'Treadle Park 12, 14007 Pellgrave',
  },
] as const;
