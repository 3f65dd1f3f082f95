import { renderToStaticMarkup } from 'react-dom/server';
import type { ItemView } from '@/services/catalogue/readItems';
import { Format } from '../format';
import { ItemFactsList } from './item-facts';

const nothing = {
  ...{ maker: '', makerNumber: '', tracking: 'none', purpose: 'resale', taxCategory: '', weightKg: null },
  ...{ volumeL: null, hsCode: '', origin: '', unNumber: '', hazardClass: '', packingGroup: '', hazardName: '' },
  ...{ standardCost: null, salePrice: null, saleWithTax: 1, saleTaxRate: null, edition: '', buyerNote: '' },
  ...{ account: '', department: '', successor: null, successorId: null, family: null, value1: '', value2: '' },
};
const shown = (facts: Partial<ItemView['facts']>) =>
  renderToStaticMarkup(
    <ItemFactsList
      view={
        {
          facts: { ...nothing, ...facts },
          barcodes: [],
          components: [],
          item: { unitName: 'can' },
          currency: 'EUR',
        } as unknown as ItemView
      }
      format={new Format('en-GB')}
    />,
  );

test('a fact that nobody filled in takes no place', () => {
  expect(shown({})).toBe('');
});

test('dangerous goods are spoken of only where an item is one, by UN number, class, packing group and technical name', () => {
  expect(shown({ maker: 'Fenland Mills' })).not.toContain('Dangerous');
  expect(
    shown({ unNumber: '1950', hazardClass: '2.1', packingGroup: 'II', hazardName: 'Aerosols, flammable' }),
  ).toContain('UN 1950, class 2.1, II, Aerosols, flammable');
});

test('the note to the buyer stands first; prices say their tax', () => {
  const html = shown({
    buyerNote: 'Ask for one dye lot.',
    salePrice: '5.950000',
    saleTaxRate: '19.000',
    account: '3400',
  });
  expect(html.indexOf('Ask for one dye lot.')).toBeLessThan(html.indexOf('5.95 EUR with 19 % tax'));
  expect(html).toContain('3400');
});
