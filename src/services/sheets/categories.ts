import { insertCategory, readCategories } from '@/data/repositories/sheets/references';
import type { Tx } from '@/data/sql';

const PARTED = /\s*[>/]\s*/;
/** Where items go whose category nobody named. */
export const UNSORTED = 'Unsorted';

/** A category as it is written: the names from the top down. @example categoryPath(' Yarn/Wool ')  // 'Yarn > Wool' */
export const categoryPath = (text: string): string =>
  text
    .split(PARTED)
    .map((n) => n.trim())
    .filter((n) => n !== '')
    .join(' > ');

/** The tree of categories by id and by path. */
export class Categories {
  private constructor(
    private readonly paths: Map<number, string>,
    private readonly ids: Map<string, number>,
  ) {}

  static async read(tx: Tx): Promise<Categories> {
    const rows = await readCategories(tx);
    const byId = new Map(rows.map((r) => [r.id, r]));
    const pathOf = (id: number): string => {
      const row = byId.get(id);
      if (!row) return '';
      return row.parentId === null ? row.name : `${pathOf(row.parentId)} > ${row.name}`;
    };
    const paths = new Map(rows.map((r) => [r.id, pathOf(r.id)]));
    return new Categories(paths, new Map([...paths].map(([id, path]) => [path.toLowerCase(), id])));
  }

  path(id: number): string {
    const path = this.paths.get(id) ?? '';
    return path === UNSORTED ? '' : path;
  }

  /** The id of a path, with what is missing of it made. */
  async idOf(tx: Tx, path: string): Promise<number> {
    const names = (path === '' ? UNSORTED : path).split(' > ');
    let parent: number | null = null;
    for (let n = 1; n <= names.length; n += 1) {
      const here = names.slice(0, n).join(' > ');
      let id = this.ids.get(here.toLowerCase());
      if (id === undefined) {
        id = await insertCategory(tx, names[n - 1] as string, parent);
        this.ids.set(here.toLowerCase(), id);
        this.paths.set(id, here);
      }
      parent = id;
    }
    return parent as number;
  }
}
