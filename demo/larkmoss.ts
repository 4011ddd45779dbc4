/** Larkmoss Plants, made up: a nursery that sells from a van at markets, in pounds, tax included. */
import type { DemoBusiness, DemoCustomer } from './business';
import { goodsOn, inVariants } from './goods';
import { heldWays } from './held';
import { recordIdOf } from './ids';
import { person } from './person';
import { waysOf } from './ways';

const id = recordIdOf('Larkmoss Plants');
const standard = recordIdOf(id, 'tax', 'standard');
const zero = recordIdOf(id, 'tax', 'zero');

const front = goodsOn(id, 'Front trestle', '#8d6bb3', [standard]);
const herbs = goodsOn(id, 'Herbs', '#5f9e3d', [zero]);
const shade = goodsOn(id, 'Shade', '#2e7d4f', [standard]);
const bulbs = goodsOn(id, 'Bulbs', '#7559b0', [standard]);
const pots = goodsOn(id, 'Pots & gifts', '#8a6f5a', [standard]);
const care = goodsOn(id, 'Care', '#6b7480', [standard]);

const potter = recordIdOf(id, 'maker', 'potter');
const beekeeper = recordIdOf(id, 'maker', 'beekeeper');
const candles = recordIdOf(id, 'maker', 'candles');

/** What any pot can be given. */
const potted = [
  {
    name: 'Planted in',
    least: 1,
    most: 1,
    options: [
      { name: 'Peat-free compost', price: 0, isDefault: true },
      { name: 'Ericaceous compost', price: 120, isDefault: false },
    ],
  },
  {
    name: 'With it',
    least: 0,
    most: 2,
    options: [
      { name: 'Gift wrap', price: 250, isDefault: false },
      { name: 'Care card', price: 50, isDefault: false },
      { name: 'Moss dressing', price: 180, isDefault: false },
    ],
  },
];

const TEAROOM = {
  who: {
    ...{ name: 'Wilma Thorne', company: 'Mill House Tearoom', email: 'wilma@millhouse.example' },
    ...{ phone: '01632 960121', address: 'Mill House, Otter Lane, Tarnbrook' },
  },
  ...{ terms: 14, creditLimit: 50_000 },
  consent: 'written',
} as const satisfies DemoCustomer;

export const larkmoss: DemoBusiness = {
  id,
  business: {
    name: 'Larkmoss Plants',
    currency: 'GBP',
    locale: 'en-GB',
    timeZone: 'Europe/London',
    pricesIncludeTax: true,
    taxRounding: 'sale',
    cashStep: 1,
    typedSide: 'cash',
    uplift: '0',
    groups: [
      { id: recordIdOf(id, 'group', 'Members'), name: 'Members', percent: '10' },
      { id: recordIdOf(id, 'group', 'Neighbours'), name: 'Neighbours', percent: '5' },
    ],
    service: null,
    tips: null,
    carry: { perPayment: 6000, perDevice: 40_000, hours: 24 },
    signAbove: 10_000,
    receiptHead: 'Larkmoss Plants · Fenwick Lane Nursery, Tarnbrook',
    receiptFoot: 'Water well in the first week. hello@larkmoss.example',
    lockAfter: 15,
    forgetAfter: 0,
  },
  taxes: [
    {
      id: standard,
      name: 'VAT 20 %',
      rate: '20',
      level: 'country',
      on: [],
      sort: 1,
      isActive: true,
    },
    { id: zero, name: 'VAT zero', rate: '0', level: 'country', on: [], sort: 2, isActive: true },
  ],
  ways: waysOf(id, [
    { name: 'Card', method: 'card', ledger: '1010', account: 'Larkmoss current account' },
    {
      name: 'Card by telephone',
      method: 'keyed',
      reference: 'Number of the order',
      ledger: '1010',
    },
    { name: 'Cheque', method: 'cheque', reference: 'Cheque number', opensDrawer: true },
    {
      name: 'Bank transfer',
      method: 'transfer',
      reference: 'What it will say',
      needsCustomer: true,
      account: 'Larkmoss current account',
    },
    { name: 'Town tokens', method: 'own', ledger: '1090' },
    ...heldWays(
      { account: 'On account', credit: 'Credit', voucher: 'Voucher', deposit: 'Deposit' },
      3000,
    ),
  ]),
  invoices: {
    vendor: {
      ...{ name: 'Larkmoss Plants', address: 'Fenwick Lane Nursery\nTarnbrook', country: 'GB' },
      ...{ taxNumber: 'GB999000123', email: 'maren@larkmoss.example' },
      ...{ iban: 'GB33BUKB20201555555555', bic: 'BUKBGB22', holder: 'Maren Larkmoss' },
    },
    ...{ series: 'R', to: TEAROOM, reference: 'MH 26-118' },
    lines: [
      ['Herbs for the terrace, planted', '12', '4.50'],
      ['Trough of slate', '2', '38.00'],
    ],
  },
  charges: {
    monthly: ['Looking after the terrace', '45.00'],
    byCard: ['A box of herbs', '18.50'],
    who: {
      who: { name: 'Bryony Slade', email: 'bryony@slade.example', phone: '01632 960171' },
      consent: 'written',
    },
  },
  reward: 'A pot on us',
  account: { email: 'maren@larkmoss.example', password: 'moss-lark-kettle-nine' },
  bank: { name: 'Market account', number: 'GB33BUKB20201555555555' },
  staff: [
    person(id, 'Maren', 'owner', '407183'),
    person(id, 'Tobin', 'lead', '582914'),
    person(id, 'Ines', 'helper', '260537', ['cash.expected']),
    person(id, 'Oriel', 'helper', '7318'),
  ],
  customers: [
    {
      who: {
        name: 'Hazel Birk',
        email: 'hazel@sluice-allotments.example',
        phone: '01632 960147',
        company: 'Sluice Allotments',
        address: 'Plot 9, Sluice Lane, Tarnbrook',
      },
      discount: '10',
      consent: 'written',
    },
    {
      who: {
        name: 'Corin Wray',
        phone: '01632 960188',
        company: 'The Copper Kettle',
        address: '2 Bridge Foot, Tarnbrook',
        note: 'Herbs for the kitchen, Fridays',
      },
      terms: 14,
      creditLimit: 15_000,
      consent: 'spoken',
    },
    { who: { name: 'H. Birk', phone: '01632 960147' }, isOne: 'Hazel Birk' },
    { who: { name: 'S. Marsh', phone: '01632 960166', note: 'Likes to hear of new sages' } },
    { who: { name: 'Ottilie', phone: '01632 960102', note: 'Asked for the dark hellebore' } },
    { who: { name: 'Sela Marsh', phone: '01632 960166' }, consent: 'spoken' },
  ],
  makers: [
    {
      id: potter,
      number: 12,
      name: 'Odile Brandt',
      commission: '30',
      email: 'odile@brandt-pots.example',
      isActive: true,
    },
    {
      id: beekeeper,
      number: 14,
      name: 'Ansel Roe',
      commission: '20',
      email: 'ansel@roe-honey.example',
      isActive: true,
    },
    { id: candles, number: 17, name: 'Liv Tamsin', commission: '35', email: '', isActive: true },
  ],
  items: [
    front('Lavender', '10 cm pot', 'LAV10', 450, { load: 48, pull: 9, barcode: '5099999000011' }),
    front('Rosemary', '14 cm pot', 'ROS14', 650, { load: 24, pull: 5 }),
    front('Geranium', '9 cm pot', 'GER9', 320, { load: 36, pull: 6 }),
    front('Erysimum', '1 l pot', 'ERY1', 575, { load: 18 }),
    front('Salvia', '1 l pot', 'SAL1', 620, { load: 18, pull: 4 }),
    front('Verbena', '9 cm pot', 'VER9', 340, { load: 30, pull: 4 }),
    front('Achillea', '1 l pot', 'ACH1', 550, { load: 14 }),
    front('Echinacea', '2 l pot', 'ECH2', 895, { load: 12, width: 2 }),
    front('Sedum', '9 cm pot', 'SED9', 300, { load: 30 }),
    front('Penstemon', '1 l pot', 'PEN1', 580, { load: 12 }),
    front('Aster', '1 l pot', 'AST1', 560, { load: 3, pull: 1 }),
    front('Viola', 'tray of 6', 'VIO6', 420, { load: 40, pull: 7 }),
    ...inVariants(
      front('Pelargonium', '', 'PEL', 350, { load: 6 }),
      [
        { name: 'Pot', values: ['9 cm', '1 l', '2 l'] },
        { name: 'Colour', values: ['coral', 'white', 'plum'] },
      ],
      ([pot]) => (pot === '2 l' ? 950 : pot === '1 l' ? 595 : 350),
    ),
    herbs('Basil', 'Genovese', 'BAS', 275, { load: 30, pull: 8 }),
    herbs('Thyme', '9 cm pot', 'THY9', 320, { load: 20, pull: 5 }),
    herbs('Mint', '1 l pot', 'MIN1', 400, { load: 20, pull: 5 }),
    herbs('Chives', '9 cm pot', 'CHI9', 300, { load: 0, pull: 0 }),
    herbs('Parsley', 'flat leaf', 'PAR', 260, { load: 26, pull: 5 }),
    herbs('Sage', '9 cm pot', 'SAG9', 320, { load: 18 }),
    herbs('Coriander', 'pot', 'COR', 250, { load: 22, pull: 4 }),
    herbs('Oregano', '9 cm pot', 'ORE9', 310, { load: 16 }),
    herbs('Bay', '2 l pot', 'BAY2', 1450, { load: 8, width: 2, pull: 1 }),
    herbs('Lemon balm', '9 cm pot', 'LEM9', 300, { load: 14 }),
    shade('Fern, hart’s tongue', '2 l pot', 'FHT2', 899, { load: 12, width: 2 }),
    shade('Fern, lady', '1 l pot', 'FLA1', 695, { load: 12 }),
    shade('Hosta', '2 l pot', 'HOS2', 950, { load: 10 }),
    shade('Heuchera', '1 l pot', 'HEU1', 725, { load: 16, pull: 4 }),
    shade('Hellebore', '2 l pot', 'HEL2', 1295, { load: 10, pull: 2 }),
    shade('Foxglove', '1 l pot', 'FOX1', 525, { load: 18 }),
    shade('Ivy', '9 cm pot', 'IVY9', 280, { load: 24 }),
    shade('Moss ball', 'small', 'MOS', 900, { load: 5, pull: 2 }),
    shade('Brunnera', '1 l pot', 'BRU1', 740, { load: 9 }),
    bulbs('Crocus, loose', 'by weight', 'CRO', 1260, {
      unit: 'kg',
      decimals: 3,
      load: 7,
      low: 1,
      pull: 3,
    }),
    bulbs('Narcissus, loose', 'by weight', 'NAR', 890, {
      unit: 'kg',
      decimals: 3,
      load: 9,
      low: 1,
      pull: 3,
    }),
    bulbs('Tulip, mixed', 'bag of 10', 'TUL10', 500, {
      load: 40,
      pull: 6,
      barcode: '5099999000028',
    }),
    bulbs('Tulip, black', 'bag of 10', 'TUB10', 650, { load: 20 }),
    bulbs('Snowdrop', 'in leaf', 'SNO', 350, { load: 3, pull: 1 }),
    bulbs('Allium', 'bag of 5', 'ALL5', 475, { load: 24 }),
    bulbs('Hyacinth', 'single', 'HYA', 180, { load: 60, pull: 4 }),
    bulbs('Iris, dwarf', 'bag of 10', 'IRI10', 425, { load: 24 }),
    bulbs('Amaryllis', 'boxed', 'AMA', 1150, { load: 12, width: 2, pull: 2 }),
    bulbs('Seed packet', 'any', 'SEE', 240, { load: 160, pull: 7, taxes: [zero] }),
    pots('Salt-glaze pot', 'small · Odile Brandt', 'SGS', 1150, {
      load: 8,
      pull: 2,
      more: { maker: potter },
    }),
    pots('Salt-glaze pot', 'medium · Odile Brandt', 'SGM', 1800, {
      load: 6,
      pull: 2,
      more: { maker: potter },
    }),
    pots('Salt-glaze pot', 'large · Odile Brandt', 'SGL', 2950, {
      load: 3,
      pull: 1,
      low: 1,
      more: { maker: potter },
    }),
    pots('Hand-thrown pot', 'price on its tag', 'HTP', 0, {
      load: 12,
      pull: 0,
      more: { isOpenPrice: true, maker: potter },
    }),
    pots('Terracotta pot', '12 cm', 'TER12', 350, { load: 40, pull: 4 }),
    pots('Terracotta pot', '18 cm', 'TER18', 625, { load: 24, pull: 3 }),
    pots('Honey, heather', '340 g · Ansel Roe', 'HON340', 780, {
      load: 24,
      pull: 5,
      taxes: [zero],
      more: { maker: beekeeper },
    }),
    pots('Honeycomb', 'cut · Ansel Roe', 'COM', 950, {
      load: 8,
      pull: 2,
      taxes: [zero],
      more: { maker: beekeeper },
    }),
    pots('Beeswax candle', 'pair · Liv Tamsin', 'CAN2', 600, {
      load: 18,
      pull: 4,
      more: { maker: candles },
    }),
    pots('Terrarium', 'planted', 'TRM', 3400, {
      load: 5,
      width: 2,
      pull: 1,
      low: 1,
      more: { extras: potted },
    }),
    pots('Gift wrap', 'tissue and string', 'WRA', 120, { isStocked: false, pull: 2 }),
    pots('Wreath base', 'willow', 'WRE', 540, { load: 16, pull: 2 }),
    care('Tool sharpening', 'by the hour', 'SHA', 2400, {
      unit: 'h',
      decimals: 3,
      isStocked: false,
      pull: 1,
      more: { isTimed: true },
    }),
    care('Planting advice', 'by the hour', 'ADV', 3600, {
      unit: 'h',
      decimals: 3,
      isStocked: false,
      pull: 1,
      more: { isTimed: true },
    }),
    care('Compost', '20 l', 'COM20', 550, { load: 14, pull: 3 }),
    care('Compost', '40 l', 'COM40', 895, { load: 8, pull: 2 }),
    care('Grit', '5 l', 'GRI5', 375, { load: 12 }),
    care('Plant food', '500 ml', 'FOO500', 725, { load: 14, pull: 2, barcode: '5099999000035' }),
    care('Twine', '50 m', 'TWI50', 340, { load: 20, pull: 2 }),
    care('Hand fork', 'ash handle', 'FOR', 1650, { load: 6, pull: 1 }),
    care('Plant label', 'pack of 20', 'LAB20', 295, { load: 30, pull: 2 }),
  ],
  event: {
    series: recordIdOf(id, 'series', 'Pellow Green'),
    name: 'Pellow Green market',
    short: 'Pellow Green',
    organiser: 'Pellow Green Traders',
    place: 'The green, Pellow, Tarnbrook',
    pitch: '14',
    opens: '09:00',
    closes: '16:00',
    stripe: '#1c684c',
    cloth: '#fffaf0',
  },
  markets: [
    {
      ...{ name: 'Quay Street night market', short: 'Quay Street', organiser: 'Quay Traders' },
      ...{ place: 'Quay Street, Sallow Ford', pitch: '9', opens: '17:00', closes: '22:00' },
      ...{ stripe: '#2a5a80', days: 1, editions: [-63, -35, -7, 3, 31, 59] },
    },
    {
      ...{ name: 'Sallow Ford flower show', short: 'Flower show', organiser: 'Sallow Ford Show' },
      ...{ place: 'Show ground, Sallow Ford', pitch: 'Tent 2', opens: '10:00', closes: '18:00' },
      ...{ stripe: '#a8452c', days: 3, editions: [-82, 9] },
    },
    {
      ...{ name: 'Minster yule fair', short: 'Minster yule', organiser: 'Minster Close' },
      ...{ place: 'Minster Close, Tarnbrook', pitch: 'Hut 11', opens: '11:00', closes: '20:00' },
      ...{ stripe: '#7a4a8c', days: 4, editions: [16] },
    },
    {
      ...{ name: 'Abbey yard farmers’ market', short: 'Abbey yard', organiser: 'Abbey Yard Trust' },
      ...{ place: 'Abbey yard, Hollin', pitch: '3', opens: '08:30', closes: '13:30' },
      ...{ stripe: '#1c684c', days: 1, editions: [-98, -70, -42, -14, 14, 42, 70] },
    },
    {
      ...{ name: 'Hollin seed swap', short: 'Seed swap', organiser: 'Hollin Growers' },
      ...{ place: 'Village hall, Hollin', pitch: 'by the stage', opens: '10:00', closes: '15:00' },
      ...{ stripe: '#8a5a00', days: 1, editions: [-91, 84] },
    },
    {
      ...{
        name: 'Brackwater harbour festival',
        short: 'Brackwater',
        organiser: 'Port of Brackwater',
      },
      ...{ place: 'East mole, Brackwater', pitch: 'E4', opens: '09:00', closes: '21:00' },
      ...{ stripe: '#35657a', days: 2, editions: [-49, 119] },
    },
    {
      ...{
        name: 'Tarnbrook spring pop-up',
        short: 'Spring pop-up',
        organiser: 'The Copper Kettle',
      },
      ...{
        place: '2 Bridge Foot, Tarnbrook',
        pitch: 'shop front',
        opens: '10:00',
        closes: '17:00',
      },
      ...{ stripe: '#5f9e3d', days: 2, editions: [133] },
    },
  ],
  stock: {
    van: { name: 'Van', kilograms: 300, crates: 40 },
    stores: ['Glasshouse two'],
    areas: ['Shelf A', 'Potting shed'],
    suppliers: [
      {
        ...{ name: 'Ferris Young Plants', email: 'orders@ferris-plants.example' },
        ...{ phone: '01632 960120', days: 5, percent: 38 },
        sells: [
          ['LAV10', 12],
          ['ROS14', 6],
          ['GER9', 18],
          ['VER9', 18],
          ['THY9', 20],
        ],
      },
      {
        ...{ name: 'Holt & Daughter Bulbs', email: 'sales@holt-bulbs.example' },
        ...{ phone: '01632 960121', days: 9, percent: 42 },
        sells: [
          ['TUL10', 20],
          ['ALL5', 10],
          ['IRI10', 10],
        ],
      },
      {
        ...{ name: 'Kiln Row Pottery Supplies', email: 'desk@kiln-row.example' },
        ...{ phone: '01632 960122', days: 3, percent: 45 },
        sells: [
          ['TER12', 24],
          ['TER18', 12],
          ['LAV10', 24],
        ],
      },
    ],
    carried: [
      ['LAV10', 420, 15],
      ['ROS14', 900, 8],
      ['FLA1', 1100, 8],
      ['WRE', 300, 10],
      ['HON340', 520, 20],
      ['TER12', 650, 24],
      ['TUL10', 380, 30],
    ],
    levels: [
      ['LAV10', 400, 480],
      ['ROS14', 60, 160],
      ['TUL10', 340, 420],
      ['TER12', 100, 300],
    ],
  },
  editions: [
    { daysAgo: 84, sales: 104 },
    { daysAgo: 56, sales: 131 },
    { daysAgo: 28, sales: 118 },
  ],
  devices: ['Maren’s phone', 'Stall handheld'],
  float: [
    { value: 1000, count: 2 },
    { value: 500, count: 6 },
    { value: 100, count: 20 },
    { value: 50, count: 10 },
    { value: 20, count: 15 },
    { value: 10, count: 20 },
  ],
};
