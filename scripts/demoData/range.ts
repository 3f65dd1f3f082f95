import { type Family, packOf as of, type SourcePlan } from './plan';

/* The rest of the range. Every maker, name and price is made up. */

const from = (
  supplier: string,
  pack: string | null,
  ...prices: readonly (readonly [number, string])[]
): SourcePlan => ({
  supplier,
  pack,
  prices,
});
const ball: Family['unit'] = ['H87', 'ball'];
const piece: Family['unit'] = ['H87', 'piece'];
const metre: Family['unit'] = ['MTR', 'm'];
const bag = of('bag', 10);
/** 15 yards and 12 yards, in metres. */
const bolt = of('bolt', 13_716, null, 1000);
const halfBolt = of('short bolt', 109_728, null, 10_000);

const palette = (
  'chalk cream straw honey amber rust brick cherry wine plum heather lilac dusk navy denim sea teal jade fern moss olive ' +
  'pine sage stone pebble slate fog silver graphite coal walnut chestnut tan sand blush rose coral peach lemon mint'
).split(' ');
const colours = (n: number, first = 0) =>
  Array.from({ length: n }, (_, i) => palette[(first + i) % palette.length] as string);
const sizes = (unit: string, ...list: readonly (number | string)[]) => list.map((s) => `${s} ${unit}`);
const crossed = (a: readonly string[], b: readonly string[]) => a.flatMap((x) => b.map((y) => `${x}, ${y}`));

export const range: readonly Family[] = [
  {
    ...{
      number: '11020',
      name: 'Corran lambswool DK',
      category: 'Yarn',
      unit: ball,
      packs: [bag, of('carton', 5, 'bag')],
    },
    sources: [from('GTT', 'bag', [0, '27.40'], [20, '25.90']), from('NAR', 'bag', [0, '35.10'])],
    ...{ min: 16, max: 50, variants: colours(30) },
  },
  {
    ...{ number: '11110', name: 'Silk lace', category: 'Yarn', unit: ball, packs: [of('bag', 5)] },
    sources: [from('TAM', 'bag', [0, '4650'])],
    ...{ min: 5, max: 18, variants: colours(14, 8) },
  },
  {
    ...{ number: '11230', name: 'Cotton cord 3 mm', category: 'Yarn', unit: ball, packs: [bag] },
    sources: [from('LIN', 'bag', [0, '31.50'], [10, '29.80'])],
    ...{ min: 8, max: 30, variants: colours(18, 3) },
  },
  {
    ...{ number: '11340', name: 'Bamboo sock yarn', category: 'Yarn', unit: ball, packs: [bag] },
    sources: [from('TAL', 'bag', [0, '26.80'], [12, '24.50']), from('NAR', 'bag', [0, '30.40'])],
    ...{ min: 10, max: 32, variants: colours(16, 12) },
  },
  {
    ...{ number: '22410', name: 'Torvaig tweed 150 cm', category: 'Cloth', unit: metre, packs: [halfBolt] },
    sources: [from('GTT', 'short bolt', [0, '148.00'], [6, '139.50'])],
    ...{ min: 8, max: 30, variants: colours(12, 18) },
  },
  {
    ...{ number: '22520', name: 'Quilting cotton 110 cm', category: 'Cloth', unit: metre, packs: [bolt] },
    sources: [from('TAL', 'bolt', [0, '62.10'], [8, '57.40']), from('TES', 'bolt', [0, '74.90'])],
    ...{ min: 12, max: 45, variants: colours(40) },
  },
  {
    ...{ number: '22610', name: 'Denim 10 oz 150 cm', category: 'Cloth', unit: metre, packs: [bolt] },
    sources: [from('TES', 'bolt', [0, '98.40'])],
    ...{ min: 10, max: 36, variants: ['raw indigo', 'washed indigo', 'black', 'ecru', 'grey', 'rust'] },
  },
  {
    ...{ number: '22730', name: 'Jersey, cotton, 160 cm', category: 'Cloth', unit: metre, packs: [of('roll', 20)] },
    sources: [from('TES', 'roll', [0, '118.00'], [4, '111.00'])],
    ...{ min: 10, max: 40, variants: colours(20, 5) },
  },
  {
    ...{ number: '22860', name: 'Wool felt sheet 30 × 45 cm', category: 'Cloth', unit: piece, packs: [bag] },
    sources: [from('LIN', 'bag', [0, '18.90'], [10, '17.20'])],
    ...{ min: 10, max: 40, variants: colours(30, 2) },
  },
  {
    ...{ number: '22940', name: 'Lining, viscose, 140 cm', category: 'Cloth', unit: metre, packs: [of('roll', 25)] },
    sources: [from('TES', 'roll', [0, '86.25'])],
    ...{ min: 10, max: 40, variants: colours(16, 20) },
  },
  {
    ...{ number: '25310', name: 'Grosgrain ribbon 10 mm', category: 'Ribbon', unit: metre, packs: [of('reel', 25)] },
    sources: [from('VAN', 'reel', [0, '6.40'], [20, '5.80']), from('BRI', 'reel', [0, '6.90'])],
    ...{ min: 20, max: 75, variants: colours(30) },
  },
  {
    ...{ number: '25320', name: 'Grosgrain ribbon 25 mm', category: 'Ribbon', unit: metre, packs: [of('reel', 25)] },
    sources: [from('VAN', 'reel', [0, '9.80'], [20, '9.10'])],
    ...{ min: 15, max: 60, variants: colours(28) },
  },
  {
    ...{
      number: '25430',
      name: 'Bias binding 20 mm',
      category: 'Ribbon',
      unit: metre,
      packs: [of('card', 5), of('box', 12, 'card')],
    },
    sources: [from('VAN', 'box', [0, '27.60'])],
    ...{ min: 20, max: 120, variants: colours(22, 6) },
  },
  {
    ...{ number: '25540', name: 'Elastic', category: 'Ribbon', unit: metre, packs: [of('reel', 50)] },
    sources: [from('VAN', 'reel', [0, '11.20'], [10, '10.40']), from('PIN', 'reel', [0, '10.10'])],
    ...{ min: 30, max: 120, variants: crossed(sizes('mm', 6, 10, 20, 40), ['white', 'black']) },
  },
  {
    ...{ number: '25650', name: 'Lace edging', category: 'Ribbon', unit: metre, packs: [of('reel', 20)] },
    sources: [from('VAN', 'reel', [0, '16.80'])],
    ...{ min: 8, max: 40, variants: crossed(['scallop', 'leaf', 'picot'], ['white', 'ecru', 'black']) },
  },
  {
    ...{ number: '28410', name: 'Zip, open end, 50 cm', category: 'Fastenings', unit: piece, packs: [of('pack', 10)] },
    sources: [from('PIN', 'pack', [0, '17.40'], [12, '15.90']), from('OST', 'pack', [0, '19.80'])],
    ...{ min: 8, max: 30, variants: colours(12, 10) },
  },
  {
    ...{ number: '28420', name: 'Invisible zip 22 cm', category: 'Fastenings', unit: piece, packs: [of('pack', 25)] },
    sources: [from('PIN', 'pack', [0, '19.25'], [12, '17.50'])],
    ...{ min: 15, max: 60, variants: colours(12, 1) },
  },
  {
    ...{
      number: '28530',
      name: 'Corozo button',
      category: 'Fastenings',
      unit: piece,
      packs: [of('card', 6), of('gross', 24, 'card')],
    },
    sources: [from('MAR', 'gross', [0, '38.90'], [6, '35.60'])],
    ...{
      min: 24,
      max: 160,
      variants: crossed(['natural', 'walnut', 'coal', 'navy', 'moss', 'wine'], sizes('mm', 15, 18, 23, 28)),
    },
  },
  {
    ...{ number: '28540', name: 'Shell button', category: 'Fastenings', unit: piece, packs: [of('card', 6)] },
    sources: [from('MAR', 'card', [0, '2.90'], [40, '2.60'])],
    ...{ min: 18, max: 72, variants: crossed(['white', 'smoke', 'rose'], sizes('mm', 11, 15, 20)) },
  },
  {
    ...{ number: '28650', name: 'Snap fastener', category: 'Fastenings', unit: piece, packs: [of('card', 12)] },
    sources: [from('OST', 'card', [0, '1.85'])],
    ...{ min: 36, max: 144, variants: sizes('mm', 7, 9, 11, 15, 21) },
  },
  {
    ...{
      number: '29110',
      name: 'Overlock thread 2500 m',
      category: 'Thread',
      unit: ['H87', 'cone'],
      packs: [of('box', 10)],
    },
    sources: [from('SIL', 'box', [0, '29.50'], [8, '27.60']), from('QUE', 'box', [0, '33.00'])],
    ...{ min: 6, max: 24, variants: colours(20) },
  },
  {
    ...{
      number: '29220',
      name: 'Hand quilting thread 300 m',
      category: 'Thread',
      unit: ['H87', 'spool'],
      packs: [of('box', 5)],
    },
    sources: [from('SIL', 'box', [0, '16.90'])],
    ...{ min: 5, max: 20, variants: colours(14, 4) },
  },
  {
    ...{
      number: '29330',
      name: 'Stranded cotton 8 m',
      category: 'Thread',
      unit: ['H87', 'skein'],
      packs: [of('box', 24)],
    },
    sources: [from('SIL', 'box', [0, '15.80'], [20, '14.40'])],
    ...{ min: 24, max: 96, variants: colours(40) },
  },
  {
    ...{
      number: '31410',
      name: 'Hand needles, assorted',
      category: 'Needles',
      unit: ['H87', 'packet'],
      packs: [of('box', 25)],
    },
    sources: [from('ISH', 'box', [0, '32.50'])],
    ...{
      min: 10,
      max: 60,
      variants: ['sharps 3/9', 'betweens 7', 'embroidery 5/10', 'darners 14/18', 'tapestry 18/24', 'beading 10'],
    },
  },
  {
    ...{
      number: '31520',
      name: 'Machine needles, 5',
      category: 'Needles',
      unit: ['H87', 'packet'],
      packs: [of('box', 20)],
    },
    sources: [from('SIL', 'box', [0, '38.00'], [5, '35.20'])],
    ...{
      min: 12,
      max: 60,
      variants: [
        'universal 70',
        'universal 80',
        'universal 90',
        'jeans 100',
        'stretch 75',
        'leather 90',
        'microtex 60',
      ],
    },
  },
  {
    ...{ number: '31630', name: 'Crochet hook', category: 'Needles', unit: piece, packs: [of('box', 12)] },
    sources: [from('ISH', 'box', [0, '26.40'])],
    ...{ min: 5, max: 24, variants: sizes('mm', '2.0', '2.5', '3.0', '3.5', '4.0', '4.5', '5.0', '6.0', '8.0') },
  },
  {
    ...{ number: '35010', name: 'Sewing pattern', category: 'Patterns', unit: piece, packs: [of('pack', 3)] },
    sources: [from('KES', 'pack', [0, '19.20'], [10, '17.90'])],
    ...{
      min: 2,
      max: 9,
      variants:
        'Alder coat|Bracken blouse|Clover dress|Dunlin trousers|Elder skirt|Finch shirt|Gorse jacket|Hazel smock|Ivy apron|Juniper parka|Kestrel vest|Larch pyjamas|Merle cape|Nettle hat|Osier bag|Plover shorts|Quince tunic|Rowan waistcoat'.split(
          '|',
        ),
    },
  },
  {
    ...{ number: '40310', name: 'Rotary cutter', category: 'Tools', unit: piece, packs: [of('box', 6)] },
    sources: [from('TAM', 'box', [0, '5400'])],
    ...{ min: 3, max: 12, variants: sizes('mm', 28, 45, 60) },
  },
  {
    ...{ number: '40320', name: 'Cutting mat', category: 'Tools', unit: piece, packs: [] },
    sources: [from('PIN', null, [0, '9.80'], [20, '8.90'])],
    ...{ min: 2, max: 8, variants: ['30 × 45 cm', '45 × 60 cm', '60 × 90 cm'] },
  },
  {
    ...{ number: '40430', name: 'Tailor’s shears', category: 'Tools', unit: piece, packs: [] },
    sources: [from('TAM', null, [0, '3900'], [12, '3600'])],
    ...{ min: 2, max: 8, variants: sizes('cm', 24, 26, 28) },
  },
  {
    ...{ number: '40540', name: 'Tape measure', category: 'Tools', unit: piece, packs: [of('box', 12)] },
    sources: [from('PIN', 'box', [0, '11.60'])],
    ...{ min: 8, max: 36, variants: ['150 cm', '300 cm', 'retracting'] },
  },
  {
    ...{ number: '40650', name: 'Marking pencil', category: 'Tools', unit: piece, packs: [of('box', 12)] },
    sources: [from('PIN', 'box', [0, '10.20']), from('OST', 'box', [0, '12.40'])],
    ...{ min: 8, max: 36, variants: ['white', 'blue', 'pink', 'yellow', 'silver'] },
  },
  {
    ...{ number: '40760', name: 'Thimble', category: 'Tools', unit: piece, packs: [of('box', 10)] },
    sources: [from('OST', 'box', [0, '8.70'])],
    ...{ min: 5, max: 20, variants: sizes('mm', 14, 15, 16, 17, 18) },
  },
  {
    ...{ number: '70110', name: 'Overlocker', category: 'Machines', unit: piece, packs: [] },
    sources: [from('HEK', null, [0, '312.00'])],
    ...{ min: 1, max: 3, variants: ['L3', 'L4', 'L4 air'], notAt: ['MH'] },
  },
  {
    ...{ number: '70220', name: 'Household machine', category: 'Machines', unit: piece, packs: [] },
    sources: [from('HEK', null, [0, '178.00'], [4, '169.00']), from('PEL', null, [0, '185.00'])],
    ...{ min: 1, max: 4, variants: ['H12', 'H20', 'H40', 'H60 quilt'], notAt: ['MH'] },
  },
  {
    ...{ number: '90010', name: 'Carrier bag, paper', category: 'Own use', unit: piece, packs: [of('bundle', 250)] },
    sources: [from('LIN', 'bundle', [0, '32.00'])],
    ...{ min: 250, max: 1000, variants: ['small', 'medium', 'large'] },
  },
  {
    ...{ number: '90020', name: 'Tissue paper, sheet', category: 'Own use', unit: piece, packs: [of('ream', 480)] },
    sources: [from('LIN', 'ream', [0, '24.50'])],
    ...{ min: 480, max: 1920, variants: ['white', 'moss'] },
  },
];

/** What else is said of the items of a family, by the first digits of its number. */
export type MoreOf = {
  readonly path: string;
  readonly weight: string;
  readonly hs: string;
  readonly origin: string;
  readonly maker: string;
  /** What it sells at for one of what it costs. */
  readonly markup: number;
  readonly tracking?: 'lot' | 'serial';
  readonly purpose?: 'own_use';
  readonly decimals?: number;
};

const say = (path: string, weight: string, hs: string, origin: string, maker: string, markup = 2.4): MoreOf => ({
  ...{ path, weight, hs, origin, maker, markup },
});

/** HS headings from memory (Harmonized System 2022); weights and makers made up. */
export const moreOf: Readonly<Record<string, MoreOf>> = {
  '10412': { ...say('Yarn > Wool', '0.055', '510910', 'GB', 'Hollinmere'), tracking: 'lot' },
  '10530': { ...say('Yarn > Sock', '0.105', '510990', 'DE', 'Narrowick'), tracking: 'lot' },
  '10688': { ...say('Yarn > Wool', '0.105', '510910', 'GB', 'Hollinmere'), tracking: 'lot' },
  '11020': { ...say('Yarn > Wool', '0.054', '510910', 'GB', 'Glen Torvaig'), tracking: 'lot' },
  '11110': { ...say('Yarn > Lace', '0.028', '500600', 'JP', 'Tamahashi', 2.2), tracking: 'lot' },
  '11230': { ...say('Yarn > Cord', '0.260', '520710', 'DE', 'Lindwurm'), tracking: 'lot' },
  '11340': { ...say('Yarn > Sock', '0.105', '551110', 'US', 'Tallowmere'), tracking: 'lot' },
  '22': { ...say('Cloth', '0.280', '520811', 'PT', 'Tesselow', 2.2), decimals: 1 },
  '22410': { ...say('Cloth > Wool', '0.420', '511211', 'GB', 'Glen Torvaig', 2.1), decimals: 1 },
  '22520': { ...say('Cloth > Quilting', '0.150', '520852', 'US', 'Tallowmere', 2.3), decimals: 1 },
  '22860': say('Cloth > Felt', '0.060', '560210', 'DE', 'Lindwurm'),
  '25': { ...say('Ribbon', '0.012', '580632', 'DE', 'Brindlemoor', 2.8), decimals: 1 },
  '28': say('Fastenings', '0.004', '960621', 'DE', 'Ostrelund', 3),
  '28410': say('Fastenings > Zips', '0.030', '960711', 'US', 'Pinebarrow', 2.6),
  '28420': say('Fastenings > Zips', '0.012', '960719', 'US', 'Pinebarrow', 2.8),
  '29': say('Thread', '0.035', '540110', 'CH', 'Silberhalde', 2.3),
  '31': say('Needles', '0.015', '731910', 'JP', 'Ishimura-dai', 2.4),
  '35': say('Patterns', '0.120', '490199', 'GB', 'Kestrelby', 1.9),
  '40': say('Tools', '0.090', '820559', 'JP', 'Tamahashi', 2),
  '50': say('Fastenings > Buttons', '0.003', '960622', 'DE', 'Ostrelund', 3),
  '70': { ...say('Machines', '7.500', '845210', 'DK', 'Hekkelund', 1.5), tracking: 'serial' },
  '90': { ...say('Own use', '0.020', '481940', 'DE', 'Lindwurm', 0), purpose: 'own_use' },
};

export const moreFor = (number: string): MoreOf | undefined => moreOf[number.slice(0, 5)] ?? moreOf[number.slice(0, 2)];
