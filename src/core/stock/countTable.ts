/** A row of a list of what was found, as a spreadsheet or a scanner writes it. */
export type CountTableRow = { readonly row: number; readonly code: string; readonly quantity: string };

const codeNames = ['item', 'item number', 'number', 'barcode', 'code', 'gtin', 'ean', 'sku', 'article'];
const foundNames = ['counted', 'count', 'quantity', 'qty', 'found', 'pieces'];

const known = (cell: string | undefined, names: readonly string[]) => names.includes((cell ?? '').trim().toLowerCase());

/** Item (number or barcode) and quantity of each row that says both. With a head that names the columns they may stand
 *  anywhere; without one the first column is the item and the last the quantity, and a row of a single column is one piece,
 *  as scanners write it. A row without a quantity was not counted and is left out.
 *  Rows are numbered from 1 as in the file. */
export function countTable(table: readonly (readonly string[])[]): CountTableRow[] {
  const [head] = table;
  const code = head?.findIndex((c) => known(c, codeNames)) ?? -1;
  const found = head?.findIndex((c) => known(c, foundNames)) ?? -1;
  const named = code >= 0 && found >= 0;
  return table.flatMap((cells, i) => {
    if (named && i === 0) return [];
    const filled = cells.map((c) => c.trim());
    const item = filled[named ? code : 0] ?? '';
    const single = !named && filled.filter((c) => c !== '').length === 1;
    const quantity = single ? '1' : (filled[named ? found : filled.length - 1] ?? '');
    return item === '' || quantity === '' ? [] : [{ row: i + 1, code: item, quantity }];
  });
}
