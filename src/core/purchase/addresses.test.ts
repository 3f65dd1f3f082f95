import { deliveryAddress, invoiceAddress } from '.';

const at = (address: string) => ({ invoiceAddress: address });

test('the invoice goes where all places of the order agree, else to the company', () => {
  expect(invoiceAddress([], 'Head office')).toBe('Head office');
  expect(invoiceAddress([at('')], 'Head office')).toBe('Head office');
  expect(invoiceAddress([at('Pier 1'), at(' Pier 1 ')], 'Head office')).toBe('Pier 1');
  expect(invoiceAddress([at('Pier 1'), at('')], 'Head office')).toBe('Head office');
  expect(invoiceAddress([at('Pier 1'), at('Mill Lane')], 'Head office')).toBe('Head office');
});

test('goods go to the place, or to the company where it says no address', () => {
  expect(deliveryAddress({ address: 'Harbour Street 4' }, 'Head office')).toBe('Harbour Street 4');
  expect(deliveryAddress({ address: ' ' }, 'Head office')).toBe('Head office');
});
