import { list, type SqlValue, type Tx } from '../sql';

export type ImportState =
  | 'uploading'
  | 'reading'
  | 'to_map'
  | 'checking'
  | 'checked'
  | 'applying'
  | 'applied'
  | 'refused'
  | 'cancelled';

export type ImportRow = {
  readonly id: number;
  readonly kind: string;
  readonly fileName: string;
  readonly bytes: number;
  readonly state: ImportState;
  readonly reading: string | null;
  readonly mapping: string | null;
  readonly newRows: number;
  readonly changedRows: number;
  readonly unchangedRows: number;
  readonly wrongRows: number;
  readonly refusal: string | null;
  readonly jobId: number | null;
  readonly createdBy: number;
  readonly who: string;
  readonly createdAt: string;
  readonly appliedAt: string | null;
  readonly version: number;
};

const columns = `i.id, i.kind, i.file_name AS fileName, i.bytes, i.state, i.reading, i.mapping, i.new_rows AS newRows,
  i.changed_rows AS changedRows, i.unchanged_rows AS unchangedRows, i.wrong_rows AS wrongRows, i.refusal, i.job_id AS jobId,
  i.created_by AS createdBy, u.name AS who, i.created_at AS createdAt, i.applied_at AS appliedAt, i.version`;

export const insertImport = async (
  tx: Tx,
  i: { kind: string; fileName: string; userId: number; at: string },
): Promise<number> =>
  (
    await tx.run(
      `INSERT INTO import_run (kind, file_name, bytes, state, created_by, created_at)
       VALUES (:kind, :fileName, 0, 'uploading', :userId, :at)`,
      i,
    )
  ).id;

export const findImport = (tx: Tx, id: number) =>
  tx.row<ImportRow>(`SELECT ${columns} FROM import_run i JOIN app_user u ON u.id = i.created_by WHERE i.id = :id`, {
    id,
  });

export const lockImport = async (tx: Tx, id: number): Promise<ImportRow | null> => {
  await tx.row('SELECT id FROM import_run WHERE id = :id FOR UPDATE', { id });
  return findImport(tx, id);
};

export const readImportRuns = (tx: Tx, limit: number) =>
  tx.rows<ImportRow>(
    `SELECT ${columns} FROM import_run i JOIN app_user u ON u.id = i.created_by ORDER BY i.id DESC LIMIT ${Math.trunc(limit)}`,
  );

/** Moves an import on; only what is given changes. */
export async function updateImport(
  tx: Tx,
  id: number,
  change: {
    state?: ImportState;
    bytes?: number;
    reading?: string;
    mapping?: string;
    refusal?: string | null;
    jobId?: number | null;
    appliedAt?: string;
    counts?: { new: number; changed: number; unchanged: number; wrong: number };
  },
): Promise<void> {
  const sets: string[] = ['version = version + 1'];
  const values: Record<string, SqlValue> = { id };
  const set = (column: string, name: string, value: SqlValue | undefined) => {
    if (value === undefined) return;
    sets.push(`${column} = :${name}`);
    values[name] = value;
  };
  set('state', 'state', change.state);
  set('bytes', 'bytes', change.bytes);
  set('reading', 'reading', change.reading);
  set('mapping', 'mapping', change.mapping);
  set('refusal', 'refusal', change.refusal);
  set('job_id', 'jobId', change.jobId);
  set('applied_at', 'appliedAt', change.appliedAt);
  set('new_rows', 'n', change.counts?.new);
  set('changed_rows', 'c', change.counts?.changed);
  set('unchanged_rows', 'u', change.counts?.unchanged);
  set('wrong_rows', 'w', change.counts?.wrong);
  await tx.run(`UPDATE import_run SET ${sets.join(', ')} WHERE id = :id`, values);
}

export const insertPiece = (tx: Tx, p: { importId: number; pieceNo: number; content: Buffer }) =>
  tx.run('INSERT INTO import_piece (import_id, piece_no, content) VALUES (:importId, :pieceNo, :content)', p);

export const readPiece = async (tx: Tx, importId: number, pieceNo: number): Promise<Buffer | null> =>
  (
    await tx.row<{ content: Buffer }>(
      'SELECT content FROM import_piece WHERE import_id = :importId AND piece_no = :pieceNo',
      { importId, pieceNo },
    )
  )?.content ?? null;

export const deletePieces = (tx: Tx, importId: number) =>
  tx.run('DELETE FROM import_piece WHERE import_id = :importId', { importId });

export const deleteRowsAfter = (tx: Tx, importId: number, rowNo: number) =>
  tx.run('DELETE FROM import_row WHERE import_id = :importId AND row_no > :rowNo', { importId, rowNo });

export type StagedRow = {
  readonly rowNo: number;
  readonly state: 'new' | 'changed' | 'unchanged' | 'wrong';
  readonly rowKey: string;
  readonly seen: string;
  readonly content: string;
  readonly says: string;
  readonly outcome: string;
};

export const insertStaged = (tx: Tx, importId: number, rows: readonly StagedRow[]) =>
  tx.load(
    'import_row',
    ['import_id', 'row_no', 'state', 'row_key', 'seen', 'content', 'says', 'outcome'],
    rows.map((r) => [importId, r.rowNo, r.state, r.rowKey, r.seen, r.content, r.says, r.outcome]),
  );

/** What a new record is remembered as: the values of its row. `about` says what the record is about. */
export const recordNewRows = (
  tx: Tx,
  importId: number,
  about: { entity: string; table: 'item' | 'supplier' | 'location' | null; key: string; by: 'row_key' | string },
  by: { userId: number; at: string; action: string },
): Promise<unknown> => {
  const name = about.by === 'row_key' ? 'r.row_key' : `JSON_VALUE(r.says, '$.${about.by}')`;
  return tx.run(
    `INSERT INTO change_record (at, user_id, entity, entity_id, action, before_json, after_json)
     SELECT :at, :userId, ${about.table === null ? ':entity, :importId' : "IF(x.id IS NULL, 'import', :entity), COALESCE(x.id, :importId)"},
            :action, NULL, r.says
       FROM import_row r ${about.table === null ? '' : `LEFT JOIN ${about.table} x ON x.${about.key} = ${name}`}
      WHERE r.import_id = :importId AND r.state = 'new' ORDER BY r.row_no`,
    { importId, entity: about.entity, ...by },
  );
};

const stagedColumns = 'row_no AS rowNo, state, row_key AS rowKey, seen, content, says, outcome';

/** Rows of one state, in the order of the file. */
export const readStaged = (tx: Tx, importId: number, state: StagedRow['state'], after: number, limit: number) =>
  tx.rows<StagedRow>(
    `SELECT ${stagedColumns} FROM import_row WHERE import_id = :importId AND state = :state AND row_no > :after
      ORDER BY row_no LIMIT ${Math.trunc(limit)}`,
    { importId, state, after },
  );

/** Rows to be written, in the order of their keys, of which each is there once. */
export const readToWrite = (tx: Tx, importId: number, afterKey: string, limit: number) =>
  tx.rows<StagedRow>(
    `SELECT ${stagedColumns} FROM import_row
      WHERE import_id = :importId AND row_key > :afterKey AND state IN ('new', 'changed')
      ORDER BY row_key LIMIT ${Math.trunc(limit)}`,
    { importId, afterKey },
  );

/** Rows whose key an earlier row of the file has as well, with that row. */
export const readTwice = (tx: Tx, importId: number) =>
  tx.rows<{ rowNo: number; first: number; says: string; outcome: string }>(
    `SELECT r.row_no AS rowNo, d.first, r.says, r.outcome FROM import_row r
       JOIN (SELECT row_key, MIN(row_no) AS first FROM import_row WHERE import_id = :importId AND row_key <> '' AND state <> 'wrong'
              GROUP BY row_key HAVING COUNT(*) > 1) d ON d.row_key = r.row_key AND r.row_no > d.first
      WHERE r.import_id = :importId AND r.state <> 'wrong'`,
    { importId },
  );

/** Rows that are not wrong and name another row of the file, in its order. */
export const readNaming = (tx: Tx, importId: number, after: number, limit: number) =>
  tx.rows<StagedRow>(
    `SELECT ${stagedColumns} FROM import_row
      WHERE import_id = :importId AND state IN ('new', 'changed') AND row_no > :after AND LOCATE('"own":[{', outcome) > 0
      ORDER BY row_no LIMIT ${Math.trunc(limit)}`,
    { importId, after },
  );

/** Which of these keys rows of the file have that are not wrong. */
export async function readOwnKeys(tx: Tx, importId: number, keys: readonly string[]): Promise<Set<string>> {
  const l = list('key', keys);
  if (!l) return new Set();
  const rows = await tx.rows<{ rowKey: string }>(
    `SELECT row_key AS rowKey FROM import_row WHERE import_id = :importId AND state <> 'wrong' AND row_key IN (${l.sql})`,
    { importId, ...l.values },
  );
  return new Set(rows.map((r) => r.rowKey));
}

export const setRowWrong = (tx: Tx, importId: number, rowNo: number, outcome: string) =>
  tx.run("UPDATE import_row SET state = 'wrong', outcome = :outcome WHERE import_id = :importId AND row_no = :rowNo", {
    importId,
    rowNo,
    outcome,
  });

export async function countStaged(
  tx: Tx,
  importId: number,
): Promise<{ new: number; changed: number; unchanged: number; wrong: number }> {
  const rows = await tx.rows<{ state: StagedRow['state']; n: number }>(
    'SELECT state, COUNT(*) AS n FROM import_row WHERE import_id = :importId GROUP BY state',
    { importId },
  );
  const counts = { new: 0, changed: 0, unchanged: 0, wrong: 0 };
  for (const r of rows) counts[r.state] = Number(r.n);
  return counts;
}

export const findMapping = (tx: Tx, kind: string, headings: string) =>
  tx.row<{ mapping: string }>('SELECT mapping FROM import_mapping WHERE kind = :kind AND headings = :headings', {
    kind,
    headings,
  });

export const keepMapping = (tx: Tx, m: { kind: string; headings: string; mapping: string; at: string }) =>
  tx.run(
    `INSERT INTO import_mapping (kind, headings, mapping, used_at) VALUES (:kind, :headings, :mapping, :at)
     ON DUPLICATE KEY UPDATE mapping = VALUES(mapping), used_at = VALUES(used_at)`,
    m,
  );

/** Imports from before a day, with their rows; those under way stay. Returns how many went. */
export async function deleteOldImports(tx: Tx, before: string, limit: number): Promise<number> {
  const old = await tx.rows<{ id: number }>(
    `SELECT id FROM import_run WHERE created_at < :before AND state NOT IN ('checking', 'applying')
      ORDER BY id LIMIT ${Math.trunc(limit)}`,
    { before },
  );
  for (const { id } of old) {
    await deletePieces(tx, id);
    await deleteRowsAfter(tx, id, 0);
    await tx.run('DELETE FROM import_run WHERE id = :id', { id });
  }
  return old.length;
}
