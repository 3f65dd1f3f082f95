import type { Right } from '@/core/people';

/** What each right allows, in words. */
export const rightWords: Readonly<Record<Right, string>> = {
  'needs.read': 'see needs',
  'needs.decide': 'decide needs',
  'orders.read': 'see orders and suppliers',
  'orders.edit': 'make and change orders',
  'orders.approve': 'approve orders',
  'orders.send': 'send orders',
  'goods.receive': 'book goods in',
  'stock.read': 'see items and stock',
  'stock.sell': 'book sales',
  'stock.allocate': 'promise stock',
  'stock.transfer': 'send goods between places',
  'stock.count': 'count stock',
  'promises.read': 'see customers’ orders',
  'promises.edit': 'take and change customers’ orders',
  'policies.edit': 'set policies',
  'catalogue.edit': 'change items and suppliers',
  'changes.read': 'see who changed what',
  'books.close': 'close the books',
  'setup.edit': 'change setup',
  'people.edit': 'invite and change people',
  undo: 'undo what they did',
};
