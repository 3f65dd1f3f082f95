import type { OrderPaper, PaperLine } from '@/core/purchase';
import { units } from '@/core/quantity';

/** A line of a made-up order: six bags of sixty balls at 32.80. */
export const line = (lineNo: number, more: Partial<PaperLine> = {}): PaperLine => ({
  ...{ lineNo, description: `Fen merino 4-ply, shade ${lineNo}`, edition: '', theirNumber: `HOL-${lineNo}` },
  ...{ ourNumber: `10412-${lineNo}`, makersNumber: '', packName: 'bag', unit: 'ball' },
  parts: [{ packs: units(6), base: units(60), date: '2026-12-04', place: 'Harbour Street', address: '' }],
  ...{ price: '32.8', per: '1', freeOfCharge: false, discount: '0', net: 19_680, note: '', references: [] },
  ...more,
});
/** A made-up order with these lines. */
export const paper = (lines: readonly PaperLine[], more: Partial<OrderPaper> = {}): OrderPaper => ({
  ...{ number: '2611-0047', amendment: 0, changes: [], orderDate: '2026-11-23', language: '', currency: 'EUR' },
  buyer: { name: 'Quillon Yarn & Cloth', address: 'Harbour Street 12\n24103 Torvaig' },
  supplier: 'Hollinmere Spinners\nFellside 4, 10220 Hollinmere',
  deliverTo: [{ name: 'Harbour Street', address: 'Harbour Street 12\n24103 Torvaig' }],
  ...{ invoiceTo: 'Quillon Yarn & Cloth\nPier 1', payment: '30 days net', delivery: 'DAP', shippingWay: 'parcel' },
  ...{ contact: 'Mira Rook', approvedBy: 'Otto Quillon', text: '', lines },
  net: lines.reduce((sum, l) => sum + l.net, 0),
  setup: {
    ...{ letterhead: '', foot: '', hides: [] },
    texts: { en: { opening: '', closing: '' }, de: { opening: '', closing: '' }, fr: { opening: '', closing: '' } },
  },
  ...{ charges: [], taxes: [], total: lines.reduce((sum, l) => sum + l.net, 0) },
  ...more,
});
