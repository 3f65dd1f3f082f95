import type { SqlValue, Tx } from '@/data/sql';

/** Dye lots of some yarns, two at each place, and serial numbers of the machines that are there. What is known by lot is at
 *  most what lies there; it is noted with the first movement of each place. */
export async function writeLots(tx: Tx, at: string): Promise<void> {
  const levels = await tx.rows<{ itemId: number; number: string; tracking: string; place: number; onHand: string }>(
    `SELECT i.id AS itemId, i.number, i.tracking, l.location_id AS place, l.on_hand AS onHand
       FROM level l JOIN item i ON i.id = l.item_id AND l.on_hand > 0
      WHERE (i.tracking = 'lot' AND i.number IN ('10412-02', '10412-05', '10412-12', '10530-01', '10688-01'))
         OR i.tracking = 'serial' ORDER BY i.number, l.location_id`,
  );
  const made = new Map<string, number>();
  const lotOf = async (itemId: number, code: string) => {
    const key = `${itemId}/${code}`;
    const known = made.get(key);
    if (known !== undefined) return known;
    const { id } = await tx.run('INSERT INTO lot (item_id, code, made_at) VALUES (:itemId, :code, :at)', {
      itemId,
      code,
      at,
    });
    made.set(key, id);
    return id;
  };
  const left: SqlValue[][] = [];
  const moved: SqlValue[][] = [];
  const note = async (l: (typeof levels)[number], code: string, quantity: number) => {
    const id = await lotOf(l.itemId, code);
    left.push([id, l.place, quantity]);
    moved.push([l.itemId, l.place, 1, id, quantity]);
  };
  const serials = new Map<number, number>();
  for (const l of levels) {
    const there = Math.floor(Number(l.onHand));
    if (l.tracking === 'serial') {
      for (let n = 0; n < there; n += 1) {
        const next = (serials.get(l.itemId) ?? 100) + 1;
        serials.set(l.itemId, next);
        await note(l, `${l.number.replace('-', '')}-26-${next}`, 1);
      }
      continue;
    }
    const older = Math.floor(there * 0.4);
    const colour = Number(l.number.slice(-2));
    if (older > 0) await note(l, `D${410 + colour}`, older);
    if (there - older > 0) await note(l, `D${510 + colour}`, there - older);
  }
  await tx.insertMany('INSERT INTO lot_level (lot_id, location_id, quantity)', left);
  await tx.insertMany('INSERT INTO movement_lot (item_id, location_id, posting, lot_id, quantity)', moved);
}
