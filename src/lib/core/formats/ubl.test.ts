import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { InvoiceService } from '@e-invoice-eu/core';
import fc from 'fast-check';
import { XMLParser } from 'fast-xml-parser';
import type { Row } from '../books/tables';
import { figuresOf, type InvoiceLine } from '../invoice/invoice-figures';
import { INVOICING, saidOf } from '../testing/invoice-drafts';
import { sum } from '../money/units';
import { ublOf, type UblOf } from './ubl';

const RATES = { a: '20', b: '5', c: '0' } as const;
const TAXES = Object.entries(RATES).map(([id, rate]) => ({ id, name: `VAT ${rate}`, rate }));

const line = (net: number, tax: Record<string, number>, more: Partial<InvoiceLine> = {}) => ({
  ...{ name: 'Rosemary & thyme <mixed>', detail: '9 cm', unit: '', quantity: 3000 },
  ...{ net, tax, total: net + sum(Object.values(tax)), ...more },
});

const invoice = (
  lines: readonly InvoiceLine[],
  more: Partial<Row<'invoices'>> = {},
): Row<'invoices'> => ({
  ...{ id: 'i', event: null, device: 'd', by: null, at: '2026-11-28T10:00:00.000Z' },
  ...{ sort: 'invoice', customer: 'c', credits: null, sourceIs: 'own', source: null },
  ...{ sourceNumber: '', issued: '2026-11-28', due: '2026-12-12', foot: 'Thank you', note: '' },
  ...{
    vendor: INVOICING.vendor,
    buyer: { ...saidOf(() => '', 1).buyer, email: 'wren@example.org' },
    takes: null,
    paid: 0,
  },
  ...figuresOf(lines, TAXES),
  ...more,
});

const of = (row: Row<'invoices'>, more: Partial<UblOf> = {}): UblOf => ({
  ...{ invoice: row, number: 'R2026-0007', vendor: INVOICING.vendor, buyer: row.buyer },
  ...{ business: '00000000-0000-7000-8000-000000000001', currency: 'GBP', ...more },
});

function xmlOf(row: Row<'invoices'>, more: Partial<UblOf> = {}): string {
  const made = ublOf(of(row, more));
  assert.ok(made.ok, JSON.stringify(made));
  return made.xml;
}

type Node = Readonly<Record<string, unknown>>;
const parsed = (xml: string): Node => {
  const parser = new XMLParser({
    ...{ ignoreAttributes: false, attributeNamePrefix: '@', ignoreDeclaration: true },
    ...{ parseTagValue: false, parseAttributeValue: false, trimValues: true },
  });
  return parser.parse(xml) as Node;
};

/** As the library that knows the standard's schema has it: attributes beside their elements, lists where there may be several. */
const LISTS = new Set([
  ...['cac:InvoiceLine', 'cac:TaxTotal', 'cac:TaxSubtotal', 'cac:PaymentMeans'],
  ...['cac:BillingReference', 'cac:PartyTaxScheme', 'cac:PartyIdentification'],
]);
function schemaForm(node: Node): Node {
  return Object.fromEntries(
    Object.entries(node).flatMap(([name, value]): [string, unknown][] => {
      if (name.startsWith('@')) return [];
      const key = name.replace('CreditNote', 'Invoice').replace('CreditedQ', 'InvoicedQ');
      const all = (Array.isArray(value) ? value : [value]) as unknown[];
      const inside = all.map((each) =>
        typeof each === 'object' && each !== null && !('#text' in each)
          ? schemaForm(each as Node)
          : each,
      );
      if (LISTS.has(key) || key === 'cbc:Note') return [[key, inside]];
      const [only] = inside;
      if (typeof only !== 'object' || only === null || !('#text' in only)) return [[key, only]];
      return Object.entries(only).map(([part, text]) => [
        part === '#text' ? key : `${key}${part}`,
        text,
      ]);
    }),
  );
}

/** Written again by the library, which first holds it to the schema. */
async function writtenAgain(xml: string): Promise<string> {
  const [root] = Object.values(parsed(xml)) as [Node];
  const input = { 'ubl:Invoice': schemaForm(root) } as never;
  const service = new InvoiceService(console);
  return (await service.generate(input, { format: 'UBL', lang: 'en' })) as string;
}

const textAt = (node: unknown, ...path: readonly string[]): string => {
  let here = node;
  for (const name of path) here = (here as Node | undefined)?.[name];
  const text = typeof here === 'object' && here !== null ? (here as Node)['#text'] : here;
  return typeof text === 'string' ? text : '';
};
const minor = (text: string): number => Math.round(Number(text) * 100);
const list = (node: unknown): readonly Node[] =>
  node === undefined ? [] : ((Array.isArray(node) ? node : [node]) as Node[]);

/** The standard's rules on sums, by their numbers (EN 16931-1, 6.4), and on each category of tax. */
function holdsSums(xml: string): void {
  const [root] = Object.values(parsed(xml)) as [Node];
  const total = root['cac:LegalMonetaryTotal'];
  const amount = (name: string): number => minor(textAt(total, `cbc:${name}`));
  const lines = list(root['cac:InvoiceLine'] ?? root['cac:CreditNoteLine']);
  const net = lines.map((each) => minor(textAt(each, 'cbc:LineExtensionAmount')));
  const tax = root['cac:TaxTotal'];
  const groups = list((tax as Node)['cac:TaxSubtotal']);
  const taxed = minor(textAt(tax, 'cbc:TaxAmount'));
  assert.equal(amount('LineExtensionAmount'), sum(net), 'BR-CO-10');
  assert.equal(amount('TaxExclusiveAmount'), amount('LineExtensionAmount'), 'BR-CO-13');
  assert.equal(taxed, sum(groups.map((each) => minor(textAt(each, 'cbc:TaxAmount')))), 'BR-CO-14');
  assert.equal(amount('TaxInclusiveAmount'), amount('TaxExclusiveAmount') + taxed, 'BR-CO-15');
  const prepaid = (total as Node)['cbc:PrepaidAmount'];
  const paid = prepaid === undefined ? 0 : amount('PrepaidAmount');
  assert.equal(amount('PayableAmount'), amount('TaxInclusiveAmount') - paid, 'BR-CO-16');
  assert.equal(groups.length > 0, true, 'BR-CO-18');
  const categoryOf = (node: unknown): string =>
    `${textAt(node, 'cbc:ID')} ${textAt(node, 'cbc:Percent')}`;
  for (const group of groups) {
    const category = categoryOf(group['cac:TaxCategory']);
    const own = lines.flatMap((each, at) =>
      categoryOf((each['cac:Item'] as Node)['cac:ClassifiedTaxCategory']) === category
        ? net[at]!
        : [],
    );
    const base = minor(textAt(group, 'cbc:TaxableAmount'));
    assert.equal(base, sum(own), 'BR-S-08 and its like');
    const percent = Number(textAt(group['cac:TaxCategory'], 'cbc:Percent'));
    const should = (base * percent) / 100;
    // Within one whole unit of the currency: rounded line by line it may be off by some minor units.
    assert.ok(Math.abs(minor(textAt(group, 'cbc:TaxAmount')) - should) < 100, 'BR-CO-17');
  }
  for (const [at, each] of lines.entries()) {
    const price = each['cac:Price'] as Node;
    const many = Number(
      textAt(
        each,
        'cbc:InvoicedQuantity' in each ? 'cbc:InvoicedQuantity' : 'cbc:CreditedQuantity',
      ),
    );
    const unit = Number(textAt(price, 'cbc:PriceAmount'));
    assert.ok(unit >= 0, 'BR-27');
    const base = Number(textAt(price, 'cbc:BaseQuantity'));
    assert.equal(Math.round(((unit * many) / base) * 100), net[at], 'price and quantity');
  }
}

const arbitraryLine = fc
  .record({
    net: fc.integer({ min: -5000, max: 90_000 }),
    rate: fc.constantFrom('a' as const, 'b' as const, 'c' as const, null),
    quantity: fc.integer({ min: 1, max: 99_000 }),
    unit: fc.constantFrom('', 'kg', 'bunch'),
  })
  .map(({ net, rate, quantity, unit }) => {
    const tax = rate === null ? {} : { [rate]: Math.round((net * Number(RATES[rate])) / 100) };
    return line(net, tax, { quantity, unit });
  });

describe('an invoice as UBL', () => {
  it('keeps the standard’s rules on sums, whatever stands on it', () => {
    fc.assert(
      fc.property(fc.array(arbitraryLine, { minLength: 1, maxLength: 9 }), fc.nat(), (lines, n) => {
        const row = invoice(lines);
        const paid = row.total > 0 ? n % (row.total + 1) : 0;
        holdsSums(xmlOf({ ...row, paid, sourceIs: 'sale', source: 's', sourceNumber: 'D1-1' }));
      }),
    );
  });

  it('is what the library that knows the schema writes of it, element for element in the same order', async () => {
    const lines = [
      line(1000, { a: 200 }),
      line(400, { c: 0 }),
      line(250, {}),
      line(-50, { a: -10 }),
    ];
    const theirs = { ...invoice([]).buyer!, reference: 'PO <4711>' };
    const [own, request, credit] = [
      xmlOf(invoice(lines, { note: 'For the hall', buyer: theirs })),
      xmlOf(invoice([line(5000, {})], { sourceIs: 'order', source: 'o', sourceNumber: 'K1-2' })),
      xmlOf(invoice(lines, { sort: 'credit', credits: 'x', note: 'one too many', buyer: theirs }), {
        credits: { number: 'R2026-0006', issued: '2026-11-20' },
      }),
    ];
    for (const xml of [own, request, credit])
      assert.deepEqual(
        Object.values(parsed(await writtenAgain(xml))).map(inOrder),
        Object.values(parsed(xml)).map(inOrder),
      );
  });

  it('says who it is from and to, when it is due and where money goes', () => {
    const root = parsed(xmlOf(invoice([line(1000, { a: 200 })])))['Invoice'] as Node;
    assert.equal(textAt(root, 'cbc:CustomizationID'), 'urn:cen.eu:en16931:2017');
    assert.equal(textAt(root, 'cbc:ID'), 'R2026-0007');
    assert.equal(textAt(root, 'cbc:DueDate'), '2026-12-12');
    assert.equal(textAt(root, 'cbc:InvoiceTypeCode'), '380');
    assert.equal(textAt(root, 'cbc:BuyerReference'), '');
    const buyer = { ...saidOf(() => '', 1).buyer, reference: 'PO 4711' };
    const referred = parsed(xmlOf(invoice([line(1000, { a: 200 })], { buyer })))['Invoice'];
    assert.equal(textAt(referred, 'cbc:BuyerReference'), 'PO 4711');
    assert.equal(textAt(referred, 'cac:OrderReference', 'cbc:ID'), 'PO 4711');
    const seller = ['cac:AccountingSupplierParty', 'cac:Party'] as const;
    assert.equal(textAt(root, ...seller, 'cac:PartyTaxScheme', 'cbc:CompanyID'), 'GB999000123');
    assert.equal(
      textAt(root, ...seller, 'cac:PostalAddress', 'cbc:AdditionalStreetName'),
      'Otterby',
    );
    const account = ['cac:PaymentMeans', 'cac:PayeeFinancialAccount', 'cbc:ID'] as const;
    assert.equal(textAt(root, ...account), 'GB33BUKB20201555555555');
    const item = ['cac:InvoiceLine', 'cac:Item', 'cbc:Name'] as const;
    assert.equal(
      textAt(root, ...item),
      'Rosemary &amp; thyme &lt;mixed&gt;'
        .replaceAll('&amp;', '&')
        .replaceAll('&lt;', '<')
        .replaceAll('&gt;', '>'),
    );
  });

  it('is out of scope of tax, without a rate, for a vendor who takes none', () => {
    const vendor = { ...INVOICING.vendor, taxNumber: '' };
    const xml = xmlOf(invoice([line(1000, {})]), { vendor });
    holdsSums(xml);
    assert.match(xml, /<cbc:ID>O<\/cbc:ID>/);
    assert.doesNotMatch(xml, /cbc:Percent|PartyTaxScheme/);
  });

  it('says why there is none', () => {
    const faultOf = (row: Row<'invoices'>, more: Partial<UblOf> = {}): string => {
      const made = ublOf(of(row, more));
      return made.ok ? 'made' : made.fault.code;
    };
    const plain = invoice([line(1000, { a: 200 })]);
    assert.equal(faultOf(plain), 'made');
    assert.equal(faultOf(plain, { number: '' }), 'ubl/no-number');
    assert.equal(faultOf(plain, { buyer: null }), 'ubl/forgotten');
    assert.equal(faultOf(plain, { currency: 'KWD' }), 'ubl/currency');
    const vendor = { ...INVOICING.vendor, taxNumber: '' };
    assert.equal(faultOf(plain, { vendor }), 'ubl/no-tax-number');
    assert.equal(faultOf(invoice([line(1000, { a: 200, b: 50 })])), 'ubl/two-taxes');
  });
});

/** Names in their order, with what they hold: objects compare without it. */
function inOrder(node: unknown): unknown {
  if (Array.isArray(node)) return node.map(inOrder);
  if (typeof node !== 'object' || node === null) return node;
  return (
    Object.entries(node)
      // The library says by itself which network it is for; ours is for none in particular.
      .filter(([name]) => !name.startsWith('@xmlns') && name !== 'cbc:ProfileID')
      .map(([name, value]) => [name, inOrder(value)])
  );
}
