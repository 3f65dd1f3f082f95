import type { LimitFault } from '@/core/classes';
import type { LotFault } from '@/core/lots';
import type { PriceFault } from '@/core/money';
import type { Forbidden, PersonFault } from '@/core/people';
import type { CellFault, PolicyFault } from '@/core/policy';
import type { CustomerOrderFault } from '@/core/promise';
import type { CostShareFault, Finding, NumberPatternFault, OrderStateFault } from '@/core/purchase';
import type { Quantity, QuantityFault } from '@/core/quantity';
import type { RowFault } from '@/core/sheets';
import type { CountStateFault, TransferStateFault } from '@/core/stock';

export type FieldFault =
  | QuantityFault
  | PriceFault
  | PolicyFault
  | CellFault
  | PersonFault
  | LimitFault
  | LotFault
  | { readonly kind: 'lot_not_there'; readonly text: string }
  | { readonly kind: 'not_an_address'; readonly text: string }
  | { readonly kind: 'not_a_number_of'; readonly text: string }
  | { readonly kind: 'not_straight' }
  | { readonly kind: 'may_not_approve'; readonly text: string }
  | { readonly kind: 'choose_address'; readonly text: string }
  | { readonly kind: 'text_missing' }
  | { readonly kind: 'place_is_fixed' }
  | { readonly kind: 'text_too_long'; readonly most: number; readonly has: number }
  | CostShareFault
  | NumberPatternFault
  | { readonly kind: 'name_taken' | 'no_such_charge' | 'no_such_line' | 'not_a_percentage'; readonly text: string }
  | { readonly kind: 'number_taken' | 'number_is_drawn' | 'number_is_kept'; readonly text: string }
  | { readonly kind: 'not_whole_packs'; readonly packs: Quantity }
  | { readonly kind: 'less_than_came'; readonly came: Quantity }
  | { readonly kind: 'no_currency'; readonly text: string }
  | { readonly kind: 'no_time_zone'; readonly text: string }
  | { readonly kind: 'zero_quantity' }
  | { readonly kind: 'absurd_quantity'; readonly text: string; readonly times: number }
  | { readonly kind: 'not_a_date'; readonly text: string }
  | { readonly kind: 'not_a_time'; readonly text: string }
  | { readonly kind: 'time_to_come'; readonly text: string }
  | { readonly kind: 'not_a_span'; readonly days: number }
  | { readonly kind: 'in_the_future'; readonly text: string }
  | { readonly kind: 'not_to_come'; readonly text: string }
  | { readonly kind: 'reason_missing' }
  | { readonly kind: 'more_than'; readonly most: Quantity }
  | { readonly kind: 'price_needed'; readonly item: string }
  | { readonly kind: 'stock_not_kept'; readonly item: string }
  | { readonly kind: 'sold_to_decimals'; readonly item: string; readonly decimals: number };

/** What is wrong with a row of a list of what was found. */
export type CountRowFault = {
  readonly row: number;
  readonly text: string;
  readonly why: 'unknown' | 'several' | 'not_a_quantity';
};

/** Every way a use case can refuse. Data only; the sentences are made in ui. */
export type Failure =
  | Forbidden
  | OrderStateFault
  | TransferStateFault
  | CountStateFault
  | CustomerOrderFault
  | {
      readonly kind: 'not_found';
      readonly what:
        | 'need'
        | 'order'
        | 'line'
        | 'tray'
        | 'item'
        | 'location'
        | 'allocation'
        | 'transfer'
        | 'count'
        | 'lot'
        | 'reason'
        | 'receipt'
        | 'supplier'
        | 'customer'
        | 'source'
        | 'template'
        | 'import'
        | 'user'
        | 'mail'
        | 'role'
        | 'view'
        | 'invitation'
        | 'list'
        | 'job';
    }
  | { readonly kind: 'invalid_field'; readonly field: string; readonly fault: FieldFault }
  | { readonly kind: 'bought_one_to_one' }
  | { readonly kind: 'goes_straight' }
  | { readonly kind: 'sent_straight'; readonly supplier: string; readonly number: string | null }
  | {
      readonly kind: 'changed_meanwhile';
      readonly what:
        | 'need'
        | 'order'
        | 'value'
        | 'policy'
        | 'tray'
        | 'supplier'
        | 'source'
        | 'import'
        | 'record'
        | 'user'
        | 'transfer';
      readonly who: string | null;
      readonly now: string | null;
    }
  | { readonly kind: 'already_decided'; readonly who: string; readonly packs: string; readonly supplier: string | null }
  | { readonly kind: 'no_supplier' }
  /** Whoever entered an order of this sum does not approve it. */
  | { readonly kind: 'four_eyes' }
  /** What is bought over the counter comes to one place. */
  | { readonly kind: 'several_places' }
  /** A mail can't be tried again or stopped any more. */
  | { readonly kind: 'mail_gone'; readonly state: 'going' | 'overtaken' | 'waiting' | 'sent' | 'failed' | 'stopped' }
  /** What is wrong with cells of the policy sheet: each by the row it was sent in, and its column. */
  | {
      readonly kind: 'wrong_cells';
      readonly faults: readonly { readonly row: number; readonly column: string; readonly fault: FieldFault }[];
    }
  /** Places that would supply one another in a circle, spelled out. */
  | { readonly kind: 'supply_loop'; readonly item: string; readonly through: readonly string[] }
  | { readonly kind: 'not_ready'; readonly findings: readonly Finding[]; readonly currency: string }
  | { readonly kind: 'nothing_counted' }
  | { readonly kind: 'nothing_to_count' }
  | { readonly kind: 'too_much_to_count'; readonly items: number; readonly most: number }
  /** Lines that are far off and were counted only once. */
  | { readonly kind: 'count_again'; readonly lines: number }
  /** The first of so many rows that can't be taken. */
  | { readonly kind: 'wrong_count_rows'; readonly faults: readonly CountRowFault[]; readonly of: number }
  /** A line can't be served from one dye lot; whoever sells it is asked. */
  | { readonly kind: 'lots_would_mix'; readonly item: string; readonly largest: Quantity; readonly unit: string }
  /** An order that goes out only complete, of which so many lines still wait. */
  | { readonly kind: 'only_complete'; readonly waits: number }
  | { readonly kind: 'list_gone' }
  | { readonly kind: 'not_free'; readonly itemId: number; readonly free: Quantity }
  | { readonly kind: 'books_closed'; readonly to: string }
  | { readonly kind: 'no_rate'; readonly currency: string; readonly on: string }
  | { readonly kind: 'touched_since'; readonly who: string; readonly action: string; readonly at: string }
  | { readonly kind: 'not_undoable'; readonly because: 'unknown' | 'already_undone' | 'gone_on' }
  | { readonly kind: 'no_mail_address'; readonly supplier: string }
  | { readonly kind: 'no_customer_mail'; readonly customer: string }
  | { readonly kind: 'no_colleague_mail'; readonly name: string }
  | { readonly kind: 'already_reversed'; readonly receipt: string }
  | { readonly kind: 'file_too_large'; readonly mostMegabytes: number }
  | { readonly kind: 'columns_missing'; readonly columns: readonly string[] }
  | { readonly kind: 'column_twice'; readonly column: string }
  | { readonly kind: 'not_now'; readonly state: string }
  /** What is wrong with records that were typed, one list for each. */
  | { readonly kind: 'wrong_rows'; readonly faults: readonly (readonly RowFault[])[] }
  | { readonly kind: 'key_reused' }
  | { readonly kind: 'wrong_code' }
  | { readonly kind: 'already_founded' }
  | { readonly kind: 'login_taken'; readonly login: string }
  | { readonly kind: 'name_taken'; readonly name: string }
  | { readonly kind: 'last_owner' }
  | { readonly kind: 'not_oneself' }
  | { readonly kind: 'role_in_use'; readonly people: number }
  | { readonly kind: 'link_void' }
  | { readonly kind: 'wrong_password' }
  | { readonly kind: 'too_many_attempts'; readonly minutes: number };

/** What a person typed for one field was not understood. */
export const invalidField = (field: string, fault: FieldFault): Failure => ({ kind: 'invalid_field', field, fault });

/** What a handler can answer besides the failures of use cases. */
export type HandlerFailure =
  | Failure
  | { readonly kind: 'not_signed_in' }
  | { readonly kind: 'malformed'; readonly field: string }
  | { readonly kind: 'foreign_origin' }
  | { readonly kind: 'unknown_command' }
  | { readonly kind: 'database_unavailable' }
  | { readonly kind: 'busy' }
  | { readonly kind: 'defect'; readonly id: string };
