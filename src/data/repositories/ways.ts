import type { Tx } from '../sql';

export type WeighingRow = {
  /** Carrying cost of a year, in thousandths of the value. */
  readonly carrying: number;
  /** What placing an order costs, and what sending goods to another of our places does; minor units. */
  readonly order: number;
  readonly transport: number;
};

export const readWeighing = async (tx: Tx): Promise<WeighingRow> =>
  (await tx.row<WeighingRow>(
    `SELECT carrying_thousandths AS carrying, order_cost_minor AS \`order\`, transport_minor AS transport
       FROM company WHERE id = 1`,
  )) ?? { carrying: 200, order: 0, transport: 0 };

export const updateWeighing = (tx: Tx, w: WeighingRow) =>
  tx.run(
    `UPDATE company SET carrying_thousandths = :carrying, order_cost_minor = :order, transport_minor = :transport WHERE id = 1`,
    w,
  );

/** Per supplier, lines that would stand on an order made now: open needs of its sources and lines in its tray. */
export const countLinesToCome = (tx: Tx, supplierIds: readonly number[]) =>
  tx.rowsOf<{ supplierId: number; lines: number }>(
    `SELECT x.supplierId, CAST(SUM(x.n) AS SIGNED) AS \`lines\` FROM (
       SELECT s.supplier_id AS supplierId, COUNT(*) AS n FROM need n JOIN source s ON s.id = n.source_id
        WHERE n.state = 'open' GROUP BY s.supplier_id
       UNION ALL
       SELECT supplier_id, COUNT(*) FROM tray_line WHERE state = 'in_tray' GROUP BY supplier_id) x
      WHERE x.supplierId IN (?) GROUP BY x.supplierId`,
    supplierIds,
  );
