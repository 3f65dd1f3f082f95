import type { Tx } from '../../sql';

type Choice = readonly [value: string, label: string];

/** Suppliers to choose from: code and name. */
export const readSupplierCodes = async (tx: Tx): Promise<Choice[]> =>
  (await tx.rows<{ code: string; name: string }>('SELECT code, name FROM supplier ORDER BY name, id LIMIT 1000')).map(
    (s) => [s.code, s.name],
  );

/** People to choose from: what they sign in with and their name. */
export const readUserLogins = async (tx: Tx): Promise<Choice[]> =>
  (
    await tx.rows<{ login: string; name: string }>(
      'SELECT login, name FROM app_user WHERE active = 1 ORDER BY name, id LIMIT 500',
    )
  ).map((u) => [u.login, u.name]);

/** Names of items by their numbers. */
export const readItemNames = async (tx: Tx, numbers: readonly string[]): Promise<Record<string, string>> =>
  Object.fromEntries(
    (
      await tx.rowsOf<{ number: string; name: string }>('SELECT number, name FROM item WHERE number IN (?)', numbers)
    ).map((i) => [i.number, i.name]),
  );

export const readPatternNames = async (tx: Tx): Promise<string[]> =>
  (await tx.rows<{ pattern: string }>('SELECT DISTINCT pattern FROM pack_pattern ORDER BY pattern')).map(
    (p) => p.pattern,
  );
