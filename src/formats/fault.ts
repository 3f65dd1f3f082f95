/** Why a file can't be read as a spreadsheet at all. */
export type FileFault =
  | { readonly kind: 'empty' }
  | { readonly kind: 'too_large'; readonly mostMegabytes: number }
  | { readonly kind: 'unpacks_too_large'; readonly mostMegabytes: number }
  | { readonly kind: 'binary' }
  | { readonly kind: 'old_format' }
  | { readonly kind: 'encrypted' }
  | { readonly kind: 'damaged' }
  | { readonly kind: 'entities' }
  | { readonly kind: 'took_too_long' }
  | { readonly kind: 'too_many_columns'; readonly columns: number; readonly most: number }
  | { readonly kind: 'too_many_rows'; readonly most: number }
  | { readonly kind: 'row_too_long'; readonly row: number }
  | { readonly kind: 'no_rows' };

/** Limits of a file: what a spreadsheet of the trade stays far below. */
export const limits = {
  megabytes: 60,
  unpackedMegabytes: 200,
  columns: 200,
  rows: 500_000,
  rowLength: 200_000,
} as const;
