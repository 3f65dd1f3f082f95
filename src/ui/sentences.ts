import type { CustomerOrderAction } from '@/core/promise';
import type { Finding, OrderStateFault } from '@/core/purchase';
import type { TransferAction, TransferState } from '@/core/stock';
import type { FieldFault, HandlerFailure } from '@/services/failure';
import { countOf, type Format } from './format';
import { cellSentence } from './sheets/fault-sentences';

/** The sentence for what is wrong with a typed value. All prose for faults is made here. */
export function faultSentence(fault: FieldFault, format: Format): string {
  switch (fault.kind) {
    case 'not_a_number':
      return fault.text === '' ? 'A quantity is needed here.' : `“${fault.text}” is not a number.`;
    case 'ambiguous':
    case 'price_ambiguous': {
      const [a, b] = fault.readings;
      return `${fault.text}: is that ${format.quantity(Number(a) * 1_000_000)} or ${b}? Type ${a} or ${b}.`;
    }
    case 'too_many_decimals':
    case 'price_decimals':
      return `“${fault.text}” has more than 6 decimals.`;
    case 'negative':
      return 'A quantity can’t be negative here.';
    case 'too_large':
      return `“${fault.text}” is larger than the books take.`;
    case 'zero_quantity':
      return 'A quantity above 0 is needed; to leave it out, take the line away.';
    case 'absurd_quantity':
      return `“${fault.text}” can’t be right: at most ${format.quantity(fault.times * 1_000_000)} packs on a line.`;
    case 'not_a_price':
      return `“${fault.text}” is not a price.`;
    case 'price_too_large':
      return `“${fault.text}” is larger than a price can be.`;
    case 'not_a_date':
      return `“${fault.text}” is not a date.`;
    case 'not_an_address':
      return fault.text === '' ? 'Mail needs an address.' : `“${fault.text}” is no mail address.`;
    case 'lot_not_understood':
      return `“${fault.text}” is no lot: number, quantity and, if it has one, its best-before date.`;
    case 'lots_do_not_add_up':
      return `The lots come to ${format.quantity(fault.sum)}, but ${format.quantity(fault.of)} were counted.`;
    case 'serials_do_not_add_up':
      return `${countOf(fault.count, 'serial number')}, but ${format.quantity(fault.of)} were counted.`;
    case 'serial_twice':
      return `The serial number “${fault.text}” stands here twice.`;
    case 'serial_there':
      return `The serial number “${fault.text}” is in stock already.`;
    case 'lot_not_there':
      return `Not so much of “${fault.text}” lies there.`;
    case 'not_a_share':
      return `“${fault.text}” is no share: a percentage up to 100.`;
    case 'not_a_variation':
      return `“${fault.text}” is no limit of variation: a figure like 0.5.`;
    case 'limits_reversed':
      return 'This limit has to be the larger one.';
    case 'not_a_number_of':
      return `“${fault.text}” is no number that fits here.`;
    case 'choose_address':
      return `${fault.text} has several addresses for orders; choose one.`;
    case 'text_missing':
      return 'Say what it is.';
    case 'not_a_number_pattern':
      return `“${fault.text}” can’t number orders: ${
        {
          no_run: 'it needs exactly one run of #, for the running number',
          sign: 'only letters, figures and # / . _ - can stand in a number',
          length: 'at most 24 signs',
          month_alone: 'with a month it needs the year too, or numbers come again',
        }[fault.because]
      }.`;
    case 'place_is_fixed':
      return 'A need of this place asks for it, or some of it came: split it, or put it back into its tray.';
    case 'text_too_long':
      return `This has ${format.quantity(fault.has * 1_000_000)} letters; at most ${format.quantity(fault.most * 1_000_000)} fit here. Nothing was lost: shorten it.`;
    case 'no_account':
      return `“${fault.text}” does not begin with an account number.`;
    case 'shares_not_whole':
      return `The shares come to ${fault.sum} %; together they have to be 100 %.`;
    case 'name_taken':
      return `“${fault.text}” stands on this order already.`;
    case 'no_such_charge':
      return `“${fault.text}” is no charge that stands before this one.`;
    case 'no_such_line':
      return `There is no line ${fault.text}.`;
    case 'not_a_percentage':
      return `“${fault.text}” is no percentage that fits here.`;
    case 'number_taken':
      return `Another order has the number “${fault.text}” already.`;
    case 'number_is_drawn':
      return `“${fault.text}” is of the pattern that numbers are drawn in; type another, or leave it empty.`;
    case 'number_is_kept':
      return `This order was approved as ${fault.text} and keeps its number.`;
    case 'may_not_approve':
      return fault.text === '' ? 'Nobody of that name may approve this.' : `${fault.text} may not approve this.`;
    case 'not_whole_packs':
      return `${format.quantity(fault.packs)} is no whole pack. Say that broken packs are wanted, or take whole ones.`;
    case 'less_than_came':
      return `${format.quantity(fault.came)} of this came already.`;
    case 'not_straight':
      return 'Only an item that stock is kept of, and no kit, can go from the supplier straight to the customer.';
    case 'not_a_time':
      return `“${fault.text}” is not a time of day, like 9:40.`;
    case 'time_to_come':
      return `“${fault.text}” is still to come.`;
    case 'not_a_span':
      return `A span of 1 to ${fault.days} days is needed, the earlier day first.`;
    case 'not_to_come':
      return 'A day after today is needed.';
    case 'reason_missing':
      return 'A reason is needed: others will want to know why.';
    case 'in_the_future':
      return `${format.date(fault.text)} is still to come.`;
    case 'more_than':
      if (fault.most === 0) return 'Nothing can be entered here: there is no more of it.';
      return `At most ${format.quantity(fault.most)} can be entered here.`;
    case 'price_needed':
      return `What ${fault.item} costs is not on file: type its price, or say that it came free of charge.`;
    case 'stock_not_kept':
      return `No stock is kept of ${fault.item}.`;
    case 'sold_to_decimals':
      return fault.decimals === 0
        ? `${fault.item} is sold in whole units only.`
        : `${fault.item} is sold to ${countOf(fault.decimals, 'decimal')} only.`;
    case 'login_shape':
      return 'A name to sign in with has 2 to 60 small letters, digits, points, hyphens or underscores.';
    case 'name_missing':
      return 'A name is needed here.';
    case 'password_short':
      return `A password needs at least ${fault.least} characters; a few words will do.`;
    case 'password_is_name':
      return 'The password is your name; choose another one.';
    case 'no_currency':
      return `“${fault.text}” is no currency.`;
    case 'no_time_zone':
      return `“${fault.text}” is no time zone.`;
    case 'min_above_max':
      return `Minimum ${format.quantity(fault.min)} is above maximum ${format.quantity(fault.max)}.`;
    case 'not_positive':
      return fault.field === 'fixed' ? 'A quantity above 0 is needed.' : 'At least one day is needed.';
    case 'season_reversed':
      return `This season ends before it begins (${format.date(fault.from)} to ${format.date(fault.to)}).`;
    case 'not_days':
      return `“${fault.text}” is no number of days (1 to 999).`;
    case 'not_percent':
      return `“${fault.text}” is no target: a percentage from 50 to 99.9.`;
    case 'not_a_choice':
      return `“${fault.text}” is none of the choices.`;
  }
}

const actions: Readonly<Record<string, string>> = {
  edit: 'edited',
  approve: 'approved',
  reopen: 'opened for editing',
  send: 'sent',
  put_back: 'put back',
  receive: 'booked in',
  restore: 'taken out of the trays again',
  ask: 'given for approval',
  withdraw: 'taken back from approval',
  refuse: 'refused',
  confirm: 'confirmed',
  amend: 'changed',
  drop_amendment: 'put back as it was',
  cut: 'cut short',
  cancel: 'cancelled',
  close: 'closed',
  open_again: 'opened again',
};
const states: Readonly<Record<string, string>> = {
  draft: 'a draft',
  awaiting: 'waiting for approval',
  approved: 'approved',
  sent: 'sent',
  confirmed: 'confirmed',
  amending: 'being changed',
  amendment_awaiting: 'changed and waiting for approval',
  closed: 'closed',
  put_back: 'back in its trays',
  cancelled: 'cancelled',
};

/** Why an order that is in the right state can't be all the same. */
const because: Readonly<Record<NonNullable<OrderStateFault['because']>, string>> = {
  goods_received: 'Goods have been booked in on this order, so it can’t be taken back.',
  sent_before: 'The supplier knows this order: change it, or cancel it.',
  mail_waits: 'A mail with this order is going out. Stop the mail first, or wait until it is out.',
  never_sent: 'Nobody outside knows this order yet: open it for editing instead.',
  nothing_open: 'Nothing is still to come of this order.',
};
const mailStates = {
  going: 'This mail is going out right now.',
  overtaken: 'The order went out in another way; this mail stays unsent.',
  waiting: 'This mail waits to go out anyway.',
  sent: 'This mail has gone out already.',
  failed: 'This mail could not be sent.',
  stopped: 'This mail was stopped already.',
} as const;

const transferStates: Readonly<Record<TransferState, string>> = {
  requested: 'only asked for',
  approved: 'approved',
  shipped: 'on the way',
  received: 'received',
  refused: 'refused',
  cancelled: 'cancelled',
};
const transferActions: Readonly<Record<TransferAction, string>> = {
  approve: 'approved',
  refuse: 'refused',
  cancel: 'cancelled',
  ship: 'shipped',
  receive: 'received',
  take_off: 'changed',
};

const customerOrderActions: Readonly<Record<CustomerOrderAction, string>> = {
  change: 'changed',
  allocate: 'given stock',
  hand_over: 'handed over',
  cancel: 'cancelled',
  tell: 'told of',
};

const inWords = (names: readonly string[]): string =>
  names.length < 2
    ? `“${names[0] ?? ''}”`
    : `${names
        .slice(0, -1)
        .map((n) => `“${n}”`)
        .join(', ')} and “${names.at(-1)}”`;

/** The sentence for why something was refused. */
export function failureSentence(failure: HandlerFailure | { kind: 'unreachable' }, format: Format): string {
  switch (failure.kind) {
    case 'invalid_field':
      return faultSentence(failure.fault, format);
    case 'forbidden':
      return failure.because === 'location' ? 'You may not do this for that location.' : 'Your role may not do this.';
    case 'above_limit':
      return `This is above your limit of ${format.amount(failure.limit, failure.currency)}: the owner approves it.`;
    case 'not_found':
      return `This ${failure.what} is not there any more.`;
    case 'changed_meanwhile': {
      const who = failure.who ?? 'Someone else';
      if (failure.what === 'value')
        return `${who} changed this meanwhile to “${failure.now ?? ''}”. Your entry is still here.`;
      if (failure.what === 'order') return `${who} changed this order meanwhile. Read it again before you go on.`;
      if (failure.what === 'record')
        return 'Someone else has changed this meanwhile. What you typed is still here; read it again beside it before you go on.';
      if (failure.what === 'policy')
        return `Changed meanwhile to ${failure.now ?? 'nothing set'}. Your entry is still here.`;
      if (failure.what === 'transfer')
        return 'Someone else has changed this transfer meanwhile. Read it again before you go on.';
      return 'This has changed meanwhile. Refresh the list to see it as it is now.';
    }
    case 'bought_one_to_one':
      return 'A place or a customer asks for this one to one: it is decided there, by asking for less or cancelling it.';
    case 'goes_straight':
      return 'This goes from the supplier straight to the customer: it never lies with us.';
    case 'sent_straight':
      return `${failure.supplier} sends it straight ${failure.number ? `on order ${failure.number}` : 'already (it is in the tray or on a draft)'}. Take it off there first.`;
    case 'already_decided':
      return `${failure.who} has already decided this: ${Number(failure.packs)} from ${failure.supplier ?? 'no supplier'}.`;
    case 'four_eyes':
      return 'An order of this sum is approved by somebody else than who entered it. Ask for approval.';
    case 'several_places':
      return 'What was bought over the counter comes to one of our places, in one go: this order is for none, several, or a customer.';
    case 'mail_gone':
      return mailStates[failure.state];
    case 'no_supplier':
      return 'This item has no supplier yet, so nobody to order it from.';
    case 'not_ready':
      return `Not ready to approve: ${failure.findings.map((f) => findingSentence(f, format, failure.currency)).join('; ')}.`;
    case 'not_in_this_state':
      if (failure.because) return because[failure.because];
      return `This order is ${states[failure.state] ?? failure.state} and can’t be ${actions[failure.action] ?? failure.action}.`;
    case 'wrong_cells': {
      const [first] = failure.faults;
      return first ? faultSentence(first.fault, format) : 'Some cells can’t be saved.';
    }
    case 'supply_loop':
      return `${failure.item} would go in a circle: ${failure.through.join(' ← ')}. Let one of these places buy it.`;
    case 'transfer_not_in_this_state':
      return `This transfer is ${transferStates[failure.state]}, so it can’t be ${transferActions[failure.action]}.`;
    case 'nothing_counted':
      return 'Nothing is counted yet: enter what came on at least one line.';
    case 'count_ended':
      return `This count has been ${failure.state === 'posted' ? 'posted' : 'dropped'} already.`;
    case 'nothing_to_count':
      return 'Nothing like that lies there, so there is nothing to count.';
    case 'too_much_to_count':
      return `${format.quantity(failure.items * 1_000_000)} items are too many for one sheet (at most ${format.quantity(failure.most * 1_000_000)}): count by category or by shelf.`;
    case 'count_again':
      return `${failure.lines === 1 ? 'One line is' : `${failure.lines} lines are`} far off and counted only once. Count again, or post as counted.`;
    case 'wrong_count_rows': {
      const why = {
        unknown: 'is no item of ours',
        several: 'is the code of several items',
        not_a_quantity: 'is no quantity',
      };
      const said = failure.faults.slice(0, 3).map((f) => `row ${f.row}: “${f.text}” ${why[f.why]}`);
      const more = failure.of - said.length;
      return `Nothing was taken. ${said.join('; ')}${more > 0 ? `; and ${more} more` : ''}.`;
    }
    case 'lots_would_mix':
      return `No dye lot of ${failure.item} suffices alone; the largest has ${format.quantity(failure.largest)}. Take it from several?`;
    case 'list_gone':
      return 'This list has to be opened again.';
    case 'not_free':
      return `Only ${format.quantity(failure.free)} of this is free.`;
    case 'books_closed':
      return `The books are closed to ${format.date(failure.to)}; nothing can be posted on or before that day.`;
    case 'no_rate':
      return `No exchange rate of ${failure.currency} is on file for ${format.date(failure.on)}; enter one under Setup, Exchange rates.`;
    case 'touched_since':
      return `${failure.who} has worked on this since (${failure.action}); nothing was undone.`;
    case 'not_undoable':
      return {
        unknown: 'This can’t be undone.',
        already_undone: 'This has been undone already.',
        gone_on: 'Work has gone on from here, so this can’t be undone any more.',
      }[failure.because];
    case 'no_mail_address':
      return `${failure.supplier} has no mail address on file; send the order another way.`;
    case 'customer_order_not_in_this_state':
      return `This order is ${failure.state} and can’t be ${customerOrderActions[failure.action]} any more.`;
    case 'no_customer_mail':
      return `There is no mail address of ${failure.customer}; call, and note that.`;
    case 'no_colleague_mail':
      return `There is no mail address of ${failure.name}: each person says their own under Alerts. Tell them by word.`;
    case 'only_complete':
      return failure.waits === 0
        ? 'This order goes out only complete: everything that is open of it has to go.'
        : `This order goes out only complete, and ${countOf(failure.waits, 'line')} of it still ${failure.waits === 1 ? 'waits' : 'wait'}. Let it go out in part, or wait.`;
    case 'already_reversed':
      return `Receipt ${failure.receipt} has already been reversed.`;
    case 'file_too_large':
      return `The file is larger than ${failure.mostMegabytes} MB. Split it, or leave out columns that aren’t needed.`;
    case 'columns_missing':
      return `Say which column of the file is ${inWords(failure.columns)}: rows can’t be told apart without.`;
    case 'column_twice':
      return `Two columns of the file are both taken for “${failure.column}”; leave one out.`;
    case 'not_now':
      return failure.state === 'unchanged'
        ? 'There is nothing to bring in: no row is new or changed.'
        : 'This file has gone on meanwhile. Reload the page to see where it is.';
    case 'wrong_rows': {
      const fault = failure.faults.flat()[0];
      return fault ? cellSentence(fault, (key) => key, format) : 'Something in it is wrong.';
    }
    case 'key_reused':
      return 'This was sent before with other content. Reload the page and try again.';
    case 'wrong_code':
      return 'This is not the code that the start command has shown. Open the address it has printed.';
    case 'already_founded':
      return 'This company has been set up already. Sign in.';
    case 'login_taken':
      return `“${failure.login}” is somebody’s already; choose another name to sign in with.`;
    case 'name_taken':
      return `There is one called “${failure.name}” already.`;
    case 'last_owner':
      return 'This is the only owner who can sign in; make another one first.';
    case 'not_oneself':
      return 'Nobody changes their own role or blocks themselves; another owner does it.';
    case 'role_in_use':
      return `${failure.people} ${failure.people === 1 ? 'person has' : 'people have'} this role; give them another one first.`;
    case 'link_void':
      return 'This link is not good any more: it was used, replaced by a newer one, or is too old. Ask the owner for another.';
    case 'wrong_password':
      return 'Name and password don’t belong together.';
    case 'too_many_attempts':
      return `Too many attempts. Try again in ${failure.minutes} minutes.`;
    case 'not_signed_in':
      return 'Your session has ended. Sign in again; what you typed is still here.';
    case 'malformed':
      return failure.field ? `“${failure.field}” is missing or not of the right kind.` : 'This could not be read.';
    case 'foreign_origin':
      return 'This did not come from Vorrat’s own pages.';
    case 'unknown_command':
      return 'Vorrat does not know this command.';
    case 'database_unavailable':
      return 'The database can’t be reached. Nothing was saved; what you typed is still here. Try again in a moment.';
    case 'busy':
      return 'Too many people at the same place; nothing was changed. Try again.';
    case 'defect':
      return `Something went wrong on our side (${failure.id}). Nothing was saved.`;
    case 'unreachable':
      return 'Vorrat can’t be reached. What you typed is still here; try again.';
  }
}

/** What is missing on an order, or worth knowing. */
export function findingSentence(f: Finding, format: Format, currency: string): string {
  switch (f.kind) {
    case 'no_lines':
      return 'there is no line';
    case 'rate_missing':
      return `no exchange rate of ${f.currency} is on file`;
    case 'supplier_blocked':
      return 'the supplier is blocked';
    case 'price_missing':
      return `line ${f.lineNo} has no price`;
    case 'quantity_missing':
      return `line ${f.lineNo} has no quantity`;
    case 'wanted_date_missing':
      return `line ${f.lineNo} has no wanted date`;
    case 'place_missing':
      return `line ${f.lineNo} has no place to deliver to`;
    case 'not_whole_packs':
      return `line ${f.lineNo} is no whole pack`;
    case 'unprintable':
      return `the paper’s typeface has no ${f.letters.slice(0, 6).join(' ')}${f.letters.length > 6 ? ' …' : ''}: printed as ¤`;
    case 'beyond_maximum':
      return `line ${f.lineNo} brings ${f.place} ${format.quantity(f.over)} above its maximum`;
    case 'over_budget':
      return `the budget of this month${f.category === null ? '' : ` for ${f.category}`} is overdrawn by ${format.money(f.over, f.currency)}`;
    case 'charges_open':
      return `${f.names.join(', ')} ${f.names.length === 1 ? 'is' : 'are'} not known yet and count${f.names.length === 1 ? 's' : ''} nothing`;
    case 'no_tax_rate':
      return `no tax rate is on file for ${f.categories.map((c) => c || 'what has no category').join(', ')}`;
    case 'supplier_address_missing':
      return 'the supplier has no address on file';
    case 'wanted_in_the_past':
      return `line ${f.lineNo} is wanted on a day that has passed`;
    case 'below_minimum':
      return `${format.amount(f.short, currency)} short of the minimum of ${format.amount(f.minimum, currency)}`;
    case 'minimum_reached':
      return `minimum of ${format.amount(f.minimum, currency)} reached`;
  }
}
