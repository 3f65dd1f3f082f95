import { decimalColumn, textColumn } from '@/core/sheets';

/** Columns that several templates share. */
export const itemColumn = (key = 'item', title = 'Item') =>
  textColumn(key, 40, {
    title,
    explain: 'Our item number.',
    example: '10412-07',
    required: true,
    aliases: key === 'item' ? ['item number', 'number', 'sku', 'article'] : [],
  });

export const supplierColumn = (required = true) =>
  textColumn('supplier', 20, {
    title: 'Supplier',
    explain: required ? 'Our code of the supplier.' : 'Our code of the supplier; empty = any.',
    example: 'HOL',
    required,
    aliases: ['supplier code', 'vendor'],
  });

export const locationColumn = (required: boolean) =>
  textColumn('location', 20, {
    title: 'Location',
    explain: required ? 'Code of the place.' : 'Code of the place; empty = every place.',
    example: 'HS',
    required,
    aliases: ['place', 'shop', 'store', 'warehouse'],
  });

export const buyerColumn = (explain: string) =>
  textColumn('buyer', 60, { title: 'Buyer', explain, example: 'mira', aliases: ['responsible buyer'] });

export const packColumn = (explain: string) =>
  textColumn('pack', 60, { title: 'Pack', explain, example: 'bag', aliases: ['packing', 'order unit'] });

/** Base units; at most what the books take. */
export const quantityColumn = (
  key: string,
  title: string,
  explain: string,
  example: string,
  more: { required?: boolean; otherwise?: string; least?: number; aliases?: readonly string[] } = {},
) =>
  decimalColumn(
    key,
    { most: 999_999_999, ...(more.least === undefined ? {} : { least: more.least }) },
    {
      title,
      explain,
      example,
      ...more,
    },
  );
