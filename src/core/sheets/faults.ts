/** What can be wrong with a cell or a row of a spreadsheet. Data only; the sentences are made in ui. */
export type CellFault =
  | { readonly kind: 'missing' }
  | { readonly kind: 'too_long'; readonly most: number }
  | { readonly kind: 'unprintable' }
  | { readonly kind: 'formula' }
  | { readonly kind: 'not_a_number'; readonly mark: DecimalMark }
  | { readonly kind: 'too_many_decimals'; readonly most: number }
  | { readonly kind: 'out_of_range'; readonly least: string; readonly most: string }
  | { readonly kind: 'not_a_date'; readonly order: DateOrder }
  | { readonly kind: 'not_one_of'; readonly choices: readonly string[] }
  | { readonly kind: 'no_such_code'; readonly what: CodeKind }
  | { readonly kind: 'check_digit'; readonly right: string }
  | { readonly kind: 'not_on_file'; readonly what: Reference }
  | { readonly kind: 'twice_in_file'; readonly row: number }
  | { readonly kind: 'differs_from_row'; readonly row: number }
  | { readonly kind: 'taken'; readonly by: string }
  | { readonly kind: 'on_file_already' }
  | {
      readonly kind: 'not_changeable';
      readonly why:
        | 'stock_posted'
        | 'stock_there'
        | 'stock_not_kept'
        | 'order_entered'
        | 'stock_in_use'
        | 'unit_in_use'
        | 'currency_in_use';
    }
  | { readonly kind: 'own_number' }
  | { readonly kind: 'order_of_another' }
  | { readonly kind: 'reserved' }
  | { readonly kind: 'own_currency' }
  | { readonly kind: 'other_dimension'; readonly unit: string }
  | { readonly kind: 'not_exact'; readonly unit: string }
  | { readonly kind: 'loop'; readonly through: readonly string[] }
  | { readonly kind: 'above_other'; readonly other: string }
  | { readonly kind: 'needs_other'; readonly other: string }
  | { readonly kind: 'books_closed'; readonly to: string }
  | { readonly kind: 'in_the_future' }
  | { readonly kind: 'stands_in_the_way'; readonly what: readonly InTheWay[] }
  | { readonly kind: 'in_use' }
  | { readonly kind: 'too_much_in_all'; readonly most: number };

export type CodeKind =
  | 'unit'
  | 'currency'
  | 'country'
  | 'hs'
  | 'un_number'
  | 'incoterm'
  | 'gtin'
  | 'mail'
  | 'hs_prefix';
export type Reference =
  | 'item'
  | 'supplier'
  | 'location'
  | 'pack'
  | 'source'
  | 'category'
  | 'family'
  | 'currency'
  | 'rate'
  | 'user'
  | 'shipping_way'
  | 'charge';

/** A fault with the cell it is in; `text` is what stands there, `column` the key of the column. */
export type RowFault = CellFault & { readonly column: string; readonly text: string };

export type DecimalMark = '.' | ',';
export type DateOrder = 'ymd' | 'dmy' | 'mdy';

/** How numbers and dates of a file are written; shown to the person, never guessed silently. */
export type Conventions = { readonly decimal: DecimalMark; readonly dates: DateOrder };

/** What stops a place from being closed: so many of a kind, and which. */
export type InTheWay = {
  readonly what: 'stock' | 'orders' | 'trays' | 'transfers' | 'promises' | 'waiting' | 'supplies';
  readonly n: number;
  readonly named: string;
};
