import type { Tx } from '../sql';
import { LIVE } from './orderStates';

export type OpenMaterial = {
  readonly id: number;
  readonly job: string;
  readonly name: string;
  readonly itemId: number;
  readonly itemNumber: string;
  readonly itemName: string;
  readonly unitName: string;
  readonly locationId: number;
  readonly location: string;
  readonly neededOn: string;
  /** Still to be ordered, in base units: less what stands on orders for it. */
  readonly open: string;
};

/** Materials of jobs that are not ordered yet, of these items; soonest first. */
export const readOpenMaterials = (tx: Tx, itemIds: readonly number[] | null) =>
  tx.rows<OpenMaterial>(
    `SELECT x.* FROM (
       SELECT m.id, m.job, m.name, m.item_id AS itemId, i.number AS itemNumber, i.name AS itemName, i.unit_name AS unitName,
              m.location_id AS locationId, l.name AS location, m.needed_on AS neededOn,
              m.quantity - COALESCE((SELECT SUM(y.base_quantity) FROM order_line y JOIN purchase_order o ON o.id = y.order_id
                                      WHERE y.job_material_id = m.id AND (o.state IN ${LIVE} OR o.state = 'closed')), 0) AS open
         FROM job_material m JOIN item i ON i.id = m.item_id JOIN location l ON l.id = m.location_id AND l.status = 'active'
        WHERE m.done = 0) x
      WHERE x.open > 0 ${itemIds === null ? '' : `AND x.itemId IN (${itemIds.map(Number).join(',') || '0'})`}
      ORDER BY x.neededOn, x.job, x.id`,
  );

/** Locks these materials; to be called before anything is read, so that what is open is read as others left it. */
export const lockMaterials = (tx: Tx, ids: readonly number[]) =>
  tx.rowsOf<{ id: number }>('SELECT id FROM job_material WHERE id IN (?) ORDER BY id FOR UPDATE', ids);

/** Jobs that lines of an order are for, by line id. */
export async function readJobsOf(
  tx: Tx,
  orderId: number,
): Promise<ReadonlyMap<number, { readonly job: string; readonly name: string }>> {
  const rows = await tx.rows<{ id: number; job: string; name: string }>(
    'SELECT y.id, m.job, m.name FROM order_line y JOIN job_material m ON m.id = y.job_material_id WHERE y.order_id = :orderId',
    { orderId },
  );
  return new Map(rows.map((r) => [r.id, { job: r.job, name: r.name }]));
}

/** A line of an order is for the material of a job. */
export const setLineJob = (tx: Tx, line: { readonly orderId: number; readonly lineNo: number }, materialId: number) =>
  tx.run('UPDATE order_line SET job_material_id = :materialId WHERE order_id = :orderId AND line_no = :lineNo', {
    ...line,
    materialId,
  });
