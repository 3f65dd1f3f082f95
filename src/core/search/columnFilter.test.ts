import { type Columns, fitsColumns, parseColumnFilter } from '.';

const columns: Columns = {
  order: 'text',
  supplier: 'text',
  place: 'text',
  net: 'number',
  expected: 'date',
  late: 'yes_no',
};
const rows = [
  {
    order: '2611-0001',
    supplier: 'Brindlemoor Ribbon',
    place: 'Old Mill',
    net: 47.4,
    expected: '2026-11-16',
    late: true,
  },
  {
    order: '2611-0002',
    supplier: 'Hollinmere Spinners',
    place: 'Harbour Street',
    net: 262.4,
    expected: '2026-11-30',
    late: false,
  },
  {
    order: 'draft',
    supplier: 'Tesselow Weaving',
    place: 'Old Mill, Wendel Yard',
    net: 483.5,
    expected: null,
    late: false,
  },
];
const found = (text: string) => {
  const filter = parseColumnFilter(text, columns, '2026-11-23');
  if (!filter.ok) throw new Error(filter.error.kind);
  return rows.flatMap((r, i) => (fitsColumns(filter.value, columns, r) ? i : []));
};

test.each([
  ['', [0, 1, 2]],
  ['mill', [0, 2]],
  ['mill draft', [2]],
  ['"wendel yard"', [2]],
  ['supplier:spin', [1]],
  ['place:"old mill" net>100', [2]],
  ['net<100', [0]],
  ['net:262,4', [1]],
  ['expected<2026-11-23', [0]],
  ['expected>2026-11-23', [1]],
  ['EXPECTED:2026-11-30', [1]],
  ['late:yes', [0]],
  ['late:no net>300', [2]],
])('%s finds %j', (text, expected) => expect(found(text)).toEqual(expected));

test.each([
  ['supplyer:brind', 'no_such_column'],
  ['net>much', 'not_for_column'],
  ['supplier>a', 'not_for_column'],
  ['late:perhaps', 'not_for_column'],
  ['expected<someday', 'not_for_column'],
])('%s is said: %s', (text, kind) =>
  expect(parseColumnFilter(text, columns, '2026-11-23')).toEqual({
    ok: false,
    error: { kind, text, columns: Object.keys(columns) },
  }),
);
