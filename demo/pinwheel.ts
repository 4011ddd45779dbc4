/** Pinwheel & Tail, made up: kites and windsocks at fairs, in dollars, tax on top. */
import type { DemoBusiness, DemoCustomer } from './business';
import { goodsOn, inVariants } from './goods';
import { heldWays } from './held';
import { recordIdOf } from './ids';
import { person } from './person';
import { waysOf } from './ways';

const id = recordIdOf('Pinwheel & Tail');
const state = recordIdOf(id, 'tax', 'state');
const county = recordIdOf(id, 'tax', 'county');

const kites = goodsOn(id, 'Kites', '#a33b55', [state, county]);
const trimmings = goodsOn(id, 'Tails & line', '#3f6f9e', [state, county]);

const PIER = {
  who: {
    ...{ name: 'Basil Orr', company: 'Gull Point Pier', email: 'basil@gullpoint.example' },
    ...{ phone: '+1 202 555 0143', address: '1 Pier Head, Gull Point' },
  },
  ...{ terms: 14, creditLimit: 100_000 },
  consent: 'written',
} as const satisfies DemoCustomer;

export const pinwheel: DemoBusiness = {
  id,
  business: {
    name: 'Pinwheel & Tail',
    currency: 'USD',
    locale: 'en-US',
    timeZone: 'America/Chicago',
    pricesIncludeTax: false,
    taxRounding: 'line',
    cashStep: 1,
    typedSide: 'cash',
    uplift: '3.5',
    groups: [],
    service: null,
    tips: { percents: ['10', '15', '20'], of: 'net', isOnReader: false },
    carry: { perPayment: 8000, perDevice: 30_000, hours: 12 },
    signAbove: null,
    receiptHead: 'Pinwheel & Tail · kites and windsocks',
    receiptFoot: 'Never fly near power lines. fly@pinwheel.example',
    lockAfter: 15,
    forgetAfter: 0,
  },
  taxes: [
    { id: state, name: 'State', rate: '6.25', level: 'region', on: [], sort: 1, isActive: true },
    { id: county, name: 'County', rate: '1.75', level: 'local', on: [], sort: 2, isActive: true },
  ],
  ways: waysOf(id, [
    { name: 'Card', method: 'card', side: 'card', ledger: '1010' },
    {
      name: 'Card, on the fair’s terminal',
      method: 'own',
      side: 'card',
      reference: 'Terminal slip',
      surchargeFixed: 0,
    },
    ...heldWays(
      { account: 'On account', credit: 'Credit', voucher: 'Voucher', deposit: 'Deposit' },
      5000,
    ),
  ]),
  invoices: {
    vendor: {
      ...{ name: 'Pinwheel & Tail', address: '4 Pier Road\nGull Point', country: 'US' },
      ...{ taxNumber: '99-0001234', email: 'dov@pinwheel.example', iban: '', bic: '', holder: '' },
    },
    ...{ series: 'INV-', to: PIER, reference: 'PO 4471' },
    lines: [
      ['Windsocks for the pier, with its name', '6', '24.00'],
      ['Putting them up', '1', '80.00'],
    ],
  },
  charges: {
    monthly: ['Windsocks kept in order', '60.00'],
    byCard: ['A kite a month for the class', '22.00'],
    who: { who: { name: 'Marlow Fitch', phone: '555-0171' }, consent: 'online' },
  },
  reward: 'Five off next time',
  account: { email: 'dov@pinwheel.example', password: 'tail-wind-drum-eleven' },
  bank: { name: 'Fair account', number: '000123456789' },
  staff: [person(id, 'Dov', 'owner', '826451'), person(id, 'Pia', 'helper', '3950')],
  customers: [
    { who: { name: 'June Lowe', phone: '555-0134' }, isOne: 'Juniper Lowe' },
    {
      who: {
        name: 'Juniper Lowe',
        email: 'juniper@harbor-school.example',
        phone: '555-0134',
        company: 'Harbor Grade School',
      },
      discount: '5',
      terms: 30,
      creditLimit: 50_000,
      consent: 'online',
    },
  ],
  makers: [],
  items: [
    kites('Diamond kite', 'small', 'DIA-S', 1499, { load: 20, pull: 6 }),
    kites('Diamond kite', 'large', 'DIA-L', 2499, { load: 12, pull: 3 }),
    kites('Delta kite', 'two-metre', 'DEL', 3899, { load: 8, pull: 2 }),
    kites('Box kite', 'canvas', 'BOX', 4599, { load: 6, pull: 1 }),
    kites('Windsock', '1.5 m', 'SOC', 1999, { load: 18, pull: 4 }),
    ...inVariants(
      kites('Streamer', '', 'STR', 899, { load: 8 }),
      [
        { name: 'Color', values: ['sunrise', 'tide', 'meadow'] },
        { name: 'Length', values: ['6 ft', '10 ft'] },
      ],
      ([, length]) => (length === '10 ft' ? 1299 : 899),
    ),
    kites('Pinwheel', 'any color', 'PIN', 450, { load: 80, pull: 9 }),
    trimmings('Tail', '4 m', 'TAI4', 650, { load: 30, pull: 4 }),
    trimmings('Tail', '8 m', 'TAI8', 950, { load: 20, pull: 2 }),
    trimmings('Line', 'by the metre', 'LIN', 35, {
      unit: 'm',
      decimals: 1,
      load: 400,
      low: 40,
      pull: 3,
    }),
    trimmings('Winder', 'beech', 'WIN', 799, { load: 15, pull: 2 }),
    trimmings('Repair', 'by the hour', 'REP', 3000, {
      unit: 'h',
      decimals: 2,
      isStocked: false,
      pull: 1,
    }),
  ],
  event: {
    series: recordIdOf(id, 'series', 'Sable Harbor'),
    name: 'Sable Harbor kite fair',
    short: 'Sable Harbor',
    organiser: 'Sable Harbor Commons',
    place: 'North lawn, Sable Harbor',
    pitch: 'C7',
    opens: '10:00',
    closes: '18:00',
    stripe: '#a33b55',
    cloth: '#fffaf0',
  },
  markets: [
    {
      ...{ name: 'Cove Point regatta', short: 'Cove Point', organiser: 'Cove Point Sailing' },
      ...{ place: 'Boat ramp, Cove Point', pitch: '22', opens: '10:00', closes: '18:00' },
      ...{ stripe: '#2a5a80', days: 2, editions: [-54, 12] },
    },
    {
      ...{ name: 'Maple Ridge harvest fair', short: 'Maple Ridge', organiser: 'Ridge Grange' },
      ...{ place: 'Grange field, Maple Ridge', pitch: 'K3', opens: '09:00', closes: '19:00' },
      ...{ stripe: '#8a5a00', days: 3, editions: [-40, 325] },
    },
    {
      ...{ name: 'First Friday art walk', short: 'First Friday', organiser: 'Main Street Guild' },
      ...{ place: 'Main Street, Sable Harbor', pitch: 'by the bank' },
      ...{ opens: '16:00', closes: '21:00', stripe: '#7a4a8c', days: 1, editions: [-28, 7, 35] },
    },
  ],
  stock: {
    van: { name: 'Trailer', kilograms: 200, crates: 24 },
    stores: ['Boat shed'],
    areas: ['Loft'],
    suppliers: [
      {
        ...{ name: 'Tern Sailcloth', email: 'orders@tern-sailcloth.example' },
        ...{ phone: '555-0151', days: 12, percent: 40 },
        sells: [
          ['DIA-S', 10],
          ['SOC', 6],
          ['PIN', 50],
          ['TAI4', 20],
        ],
      },
    ],
    carried: [
      ['DIA-S', 180, 40],
      ['SOC', 240, 30],
      ['PIN', 30, 100],
      ['DEL', 400, 12],
      ['TAI4', 60, 80],
    ],
    levels: [
      ['DIA-S', 60, 160],
      ['PIN', 300, 640],
    ],
  },
  editions: [{ daysAgo: 30, sales: 24 }],
  devices: ['Dov’s tablet'],
  float: [
    { value: 1000, count: 4 },
    { value: 500, count: 6 },
    { value: 100, count: 30 },
    { value: 25, count: 40 },
    { value: 10, count: 20 },
  ],
};
