import { type Family, packOf as of } from './plan';
import { range } from './range';

const ball: Family['unit'] = ['H87', 'ball'];
const piece: Family['unit'] = ['H87', 'piece'];
const metre: Family['unit'] = ['MTR', 'm'];
const bag = of('bag', 10);
const bolt = of('bolt', 13_716, null, 1000); // 15 yd
const colours = ['chalk', 'straw', 'rust', 'brick', 'plum', 'heather', 'moss', 'fern', 'sea', 'teal', 'slate', 'fog'];

export const families: readonly Family[] = [
  {
    number: '10412',
    name: 'Fen merino 4-ply',
    category: 'Yarn',
    unit: ball,
    packs: [bag, of('carton', 6, 'bag')],
    sources: [
      {
        supplier: 'HOL',
        pack: 'bag',
        prices: [
          [0, '32.80'],
          [10, '31.40'],
        ],
      },
      { supplier: 'NAR', pack: 'carton', prices: [[0, '222.60']] },
    ],
    min: 28,
    max: 76,
    variants: colours,
  },
  {
    number: '10530',
    name: 'Marl sock yarn',
    category: 'Yarn',
    unit: ball,
    packs: [bag],
    sources: [
      {
        supplier: 'NAR',
        pack: 'bag',
        prices: [
          [0, '29.60'],
          [20, '28.10'],
        ],
      },
    ],
    min: 20,
    max: 60,
    variants: ['ash', 'berry', 'ember', 'harvest', 'lake', 'pebble', 'pine', 'tide'],
  },
  {
    number: '10688',
    name: 'Upland aran',
    category: 'Yarn',
    unit: ball,
    packs: [of('bag', 5)],
    sources: [{ supplier: 'HOL', pack: 'bag', prices: [[0, '24.75']] }],
    min: 12,
    max: 40,
    variants: ['barley', 'granite', 'juniper', 'oat', 'peat', 'thistle'],
  },
  {
    number: '22017',
    name: 'Half-linen 150 cm',
    category: 'Cloth',
    unit: metre,
    packs: [bolt],
    sources: [
      {
        supplier: 'TES',
        pack: 'bolt',
        prices: [
          [0, '84.77'],
          [12, '81.20'],
        ],
      },
    ],
    min: 30,
    max: 90,
    variants: ['natural', 'indigo', 'clay', 'white'],
  },
  {
    number: '22155',
    name: 'Cotton lawn 140 cm',
    category: 'Cloth',
    unit: metre,
    packs: [bolt],
    sources: [{ supplier: 'TES', pack: 'bolt', prices: [[0, '96.70']] }],
    min: 25,
    max: 70,
    variants: ['fern sprig', 'small check', 'bluebell', 'stripe'],
  },
  {
    number: '22290',
    name: 'Interfacing, woven, fusible, extra wide 150 cm, for coat fronts and heavy collars',
    category: 'Cloth',
    unit: metre,
    packs: [of('roll', 25)],
    sources: [{ supplier: 'TES', pack: 'roll', prices: [[0, '61.25']] }],
    min: 20,
    max: 60,
    variants: ['natural white', 'charcoal'],
  },
  {
    number: '25100',
    name: 'Satin ribbon 15 mm',
    category: 'Ribbon',
    unit: metre,
    packs: [of('reel', 25)],
    sources: [
      {
        supplier: 'BRI',
        pack: 'reel',
        prices: [
          [0, '7.90'],
          [10, '7.20'],
        ],
      },
    ],
    min: 30,
    max: 100,
    variants: ['ivory', 'red', 'navy', 'gold', 'black', 'sage'],
  },
  {
    number: '25240',
    name: 'Velvet ribbon 22 mm',
    category: 'Ribbon',
    unit: metre,
    packs: [of('reel', 10)],
    sources: [{ supplier: 'BRI', pack: 'reel', prices: [[0, '10.40']] }],
    min: 12,
    max: 40,
    variants: ['bottle', 'burgundy', 'black', 'rose'],
  },
  {
    number: '28011',
    name: 'Horn toggle',
    category: 'Fastenings',
    unit: piece,
    packs: [of('card', 6), of('gross', 24, 'card')],
    sources: [{ supplier: 'OST', pack: 'gross', prices: [[0, '51.84']] }],
    min: 40,
    max: 180,
    variants: ['30 mm', '40 mm', '50 mm'],
  },
  {
    number: '28305',
    name: 'Zip, closed end, 20 cm',
    category: 'Fastenings',
    unit: piece,
    packs: [of('pack', 25)],
    sources: [
      {
        supplier: 'OST',
        pack: 'pack',
        prices: [
          [0, '16.25'],
          [8, '15.00'],
        ],
      },
    ],
    min: 30,
    max: 90,
    variants: ['white', 'black', 'navy', 'beige', 'red'],
  },
  {
    number: '29000',
    name: 'Sewing thread 200 m',
    category: 'Thread',
    unit: ['H87', 'spool'],
    packs: [of('box', 12)],
    sources: [
      {
        supplier: 'QUE',
        pack: 'box',
        prices: [
          [0, '18.60'],
          [10, '17.40'],
        ],
      },
    ],
    min: 18,
    max: 54,
    variants: ['white', 'black', 'grey', 'navy', 'red', 'olive', 'sand', 'teal'],
  },
  {
    number: '31080',
    name: 'Circular needle 80 cm',
    category: 'Needles',
    unit: piece,
    packs: [of('box', 10)],
    sources: [{ supplier: 'ISH', pack: 'box', prices: [[0, '49.10']] }],
    min: 6,
    max: 24,
    variants: ['2.5 mm', '3.0 mm', '3.5 mm', '4.0 mm', '4.5 mm', '5.0 mm'],
  },
  {
    number: '31300',
    name: 'Double-pointed needles, set of 5',
    category: 'Needles',
    unit: ['H87', 'set'],
    packs: [of('box', 6)],
    sources: [{ supplier: 'ISH', pack: 'box', prices: [[0, '27.90']], minimum: 12 }],
    min: 4,
    max: 16,
    variants: ['2.5 mm', '3.0 mm', '4.0 mm'],
  },
  {
    number: '40110',
    name: 'Fabric shears 21 cm',
    category: 'Tools',
    unit: piece,
    packs: [],
    sources: [{ supplier: 'PEL', pack: null, prices: [[0, '14.90']] }],
    min: 3,
    max: 10,
    variants: ['right-handed', 'left-handed'],
  },
  {
    number: '40220',
    name: 'Pins, glass head',
    category: 'Tools',
    unit: ['H87', 'tin'],
    packs: [of('box', 12)],
    sources: [{ supplier: 'OST', pack: 'box', prices: [[0, '25.20']] }],
    min: 8,
    max: 30,
    variants: ['30 mm', '43 mm'],
  },
  {
    number: '40933',
    name: 'Shawl pin',
    category: 'Tools',
    unit: piece,
    packs: [],
    sources: [],
    min: 4,
    max: 12,
    variants: ['walnut'],
  },
  {
    number: '40950',
    name: 'Row counter',
    category: 'Tools',
    unit: piece,
    packs: [of('card', 3)],
    sources: [{ supplier: 'ISH', pack: 'card', prices: [] }],
    min: 6,
    max: 18,
    variants: ['ring'],
  },
  {
    number: '50010',
    name: 'Buttons, bulk',
    category: 'Fastenings',
    unit: piece,
    packs: [],
    sources: [{ supplier: 'OST', pack: null, prices: [[0, '10.00']], per: 3 }],
    min: 30,
    max: 120,
    variants: ['shell 15 mm', 'wood 20 mm'],
  },
  {
    number: '70002',
    name: 'Lockstitch machine',
    category: 'Machines',
    unit: piece,
    packs: [],
    sources: [{ supplier: 'PEL', pack: null, prices: [[0, '389.00']] }],
    min: 1,
    max: 3,
    variants: ['M2', 'M4'],
    notAt: ['MH'],
  },
];

/** The demo's own range, whole or only what it began with; with a size, the same families go on with numbered colours until
 *  there are that many items. */
export function variantsFor(size: number | null, whole = false): { family: Family; variant: string; number: string }[] {
  const list = [...families, ...(whole ? range : [])].flatMap((family) =>
    family.variants.map((variant, i) => ({
      family,
      variant,
      number: `${family.number}-${String(i + 1).padStart(2, '0')}`,
    })),
  );
  if (size === null) return list;
  for (let n = 0; list.length < size; n += 1) {
    const family = families[n % families.length] as Family;
    list.push({ family, variant: `shade ${n + 100}`, number: `${family.number}-S${n + 100}` });
  }
  return list.slice(0, size);
}
