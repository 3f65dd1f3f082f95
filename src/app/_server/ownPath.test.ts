import { ownPath } from './ownPath';

test.each([
  ['/orders/7', '/orders/7'],
  ['/policies?q=fen+merino&at=HS', '/policies?q=fen+merino&at=HS'],
  ['', '/'],
  ['orders', '/'],
  ['//elsewhere.example/x', '/'],
  ['/\\elsewhere.example', '/'],
  ['/\t/elsewhere.example', '/'],
  ['/\n/elsewhere.example', '/'],
  ['https://elsewhere.example', '/'],
  ['javascript:alert(1)', '/'],
])('%j leads to %s', (wanted, to) => expect(ownPath(wanted)).toBe(to));
