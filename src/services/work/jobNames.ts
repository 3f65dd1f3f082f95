/** What a job is called and what its steps count, by its kind. */
const names: Readonly<Record<string, readonly [name: string, steps: string]>> = {
  recompute: ['Needs after a change to many items', 'needs'],
  'check-needs': ['All needs, reckoned afresh', 'items'],
  'read-sheet': ['A spreadsheet is looked at', 'rows'],
  'check-sheet': ['Rows of a spreadsheet are checked', 'rows'],
  'write-sheet': ['A spreadsheet is written', 'rows'],
  'fetch-rates': ['Rates of the day are fetched', 'rates'],
  'take-sales': ['Sales are taken from the tills', 'days of places'],
  'take-web-orders': ['Orders are taken from the web shop', 'orders'],
  'split-needs': ['Needs are split across suppliers', 'splits'],
  'begin-day': ['The new business day', 'steps'],
};

export const jobName = (kind: string): readonly [name: string, steps: string] => names[kind] ?? [kind, 'steps'];
