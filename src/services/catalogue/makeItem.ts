import { parseBarcode } from '@/core/codes';
import { parsePrice } from '@/core/money';
import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { drawNumber } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { findItemByNumber, setToComplete } from '@/data/repositories/itemFile';
import { command, type Request } from '../command';
import type { Deps } from '../deps';
import { type Failure, invalidField } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { checkSaid, writeChecked } from '../sheets/recordSteps';
import { settingFor } from '../sheets/sheetKind';

/** An item made in the middle of other work. `number` '' draws the next of our own; `price` is what it sells at ('' = not known
 *  yet); `code` is an unknown barcode that was scanned, '' for none. */
export type MakeItem = {
  readonly name: string;
  readonly unit: string;
  readonly price: string;
  readonly number: string;
  readonly code: string;
};

export type MadeItem = { readonly itemId: number; readonly number: string };

/** Makes an item with name, unit and price only and puts it on the list of those to be completed.
 *  Errors: forbidden, invalid_field price, wrong_rows (the same faults as a row of a spreadsheet). */
export async function makeItem(
  deps: Deps,
  actor: Actor,
  request: Request<MakeItem>,
): Promise<Result<MadeItem, Failure>> {
  const allowed = may(actor, 'catalogue.edit');
  if (!allowed.ok) return allowed;
  const { name, unit, price, number, code } = request.input;
  const amount = price.trim() === '' ? ok('') : parsePrice(price);
  if (!amount.ok) return err(invalidField('price', amount.error));
  const label = code.trim() === '' ? null : parseBarcode(code.trim());
  if (label && !label.ok)
    return err({ kind: 'wrong_rows', faults: [[{ kind: 'no_such_code', what: 'gtin', column: 'code', text: code }]] });
  return command(deps, actor, 'make-item', request, async (tx, now) => {
    const setting = await settingFor(deps, tx, actor.userId, now);
    const own = number.trim() === '' ? await nextNumber() : number.trim();
    async function nextNumber(): Promise<string> {
      const { itemPrefix } = await readCompany(tx);
      // A number that somebody gave by hand is passed over.
      for (;;) {
        const next = `${itemPrefix}${String(await drawNumber(tx, 'IT', '')).padStart(5, '0')}`;
        if (!(await findItemByNumber(tx, next))) return next;
      }
    }
    const said = [{ cells: { number: own, name, unit, sale_price: amount.value }, seen: '' }];
    const [item] = await checkSaid(tx, sheetKinds.items, said, '.', setting);
    if (!item || item.faults.length > 0) return err({ kind: 'wrong_rows', faults: [item?.faults ?? []] });
    if (item.seen !== '')
      return err({ kind: 'wrong_rows', faults: [[{ kind: 'taken', by: own, column: 'number', text: own }]] });
    const written = await writeChecked(tx, sheetKinds.items, [item], setting);
    if (!written.ok) return written;
    const itemId = written.value.ids[0] as number;
    await setToComplete(tx, itemId, true);
    if (label) {
      const cells = { code: code.trim(), item: own };
      const [barcode] = await checkSaid(tx, sheetKinds.barcodes, [{ cells, seen: '' }], '.', setting);
      if (!barcode || barcode.faults.length > 0) return err({ kind: 'wrong_rows', faults: [barcode?.faults ?? []] });
      const kept = await writeChecked(tx, sheetKinds.barcodes, [barcode], setting);
      if (!kept.ok) return kept;
    }
    return ok({ itemId, number: own });
  });
}
