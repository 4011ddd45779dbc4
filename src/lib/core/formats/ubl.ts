/**
 * Invoices and credit notes as UBL 2.1 (ISO/IEC 19845), with the content that EN 16931 asks for. Figures stand in it as
 * they stand on the document: nothing is worked out again.
 */
import type { Row } from '../books/tables';
import { currencyOf } from '../money/currency';
import { quantityText, rateOf, sum } from '../money/units';
import type { Buyer } from '../invoice/make-invoice';
import type { InvoiceLine } from '../invoice/invoice-figures';

type Vendor = NonNullable<Row<'invoices'>['vendor']>;

export interface UblOf {
  readonly invoice: Row<'invoices'>;
  readonly number: string;
  /** Of the invoice itself; of a credit note those of the invoice that it is of. */
  readonly vendor: Vendor;
  /** Null for somebody who was forgotten. */
  readonly buyer: Buyer | null;
  /** Of a credit note: the invoice that it is of. */
  readonly credits?: { readonly number: string; readonly issued: string } | undefined;
  /** The business's id: whoever has no tax number is known by it. */
  readonly business: string;
  readonly currency: string;
}

/** Why there is none by the standard. */
export type UblFault =
  | { readonly code: 'ubl/no-number' }
  | { readonly code: 'ubl/forgotten' }
  /** More decimals than the standard has. */
  | { readonly code: 'ubl/currency'; readonly currency: string }
  /** The standard has one rate for each line. */
  | { readonly code: 'ubl/two-taxes'; readonly line: string }
  /** Whoever takes tax has a number to it. */
  | { readonly code: 'ubl/no-tax-number' };

export type UblOutcome =
  | { readonly ok: true; readonly xml: string }
  | { readonly ok: false; readonly fault: UblFault };

/** An element: its name, what it holds, and its attributes. Null is none. */
type Element =
  | readonly [
      name: string,
      holds: string | readonly Element[],
      attributes?: Readonly<Record<string, string>>,
    ]
  | null;

const NAMESPACES = {
  'xmlns:cac': 'urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2',
  'xmlns:cbc': 'urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2',
} as const;
const SPECIFICATION = 'urn:cen.eu:en16931:2017';
/** UNTDID 1001. */
const TYPE = { invoice: '380', prepayment: '386', credit: '381' } as const;
/** SEPA or any other credit transfer; UNTDID 4461. */
const TRANSFER = '30';

/** VAT category by UNTDID 5305, and its rate in percent; a line that is not taxed has none. */
interface Category {
  readonly id: 'S' | 'Z' | 'E' | 'O';
  readonly percent: string;
}

export function ublOf(of: UblOf): UblOutcome {
  const { invoice, number, vendor, buyer, currency } = of;
  const refuse = (fault: UblFault): UblOutcome => ({ ok: false, fault });
  if (number === '') return refuse({ code: 'ubl/no-number' });
  if (buyer === null) return refuse({ code: 'ubl/forgotten' });
  if (currencyOf(currency).decimals > 2) return refuse({ code: 'ubl/currency', currency });
  const two = invoice.lines.find(({ tax }) => Object.keys(tax).length > 1);
  if (two !== undefined) return refuse({ code: 'ubl/two-taxes', line: two.name });
  const categoryOf = categories(invoice, vendor);
  const isTaxed = invoice.lines.some((line) => categoryOf(line).id !== 'O');
  if (isTaxed && vendor.taxNumber === '') return refuse({ code: 'ubl/no-tax-number' });
  return { ok: true, xml: `<?xml version="1.0" encoding="UTF-8"?>\n${written(root(of, buyer))}\n` };
}

/** What is not taxed is out of scope where nothing is, for a vendor without a number; else it is exempt. */
function categories(
  { lines, taxes }: Row<'invoices'>,
  { taxNumber }: Vendor,
): (line: InvoiceLine) => Category {
  const rates = new Map(taxes.map(({ id, rate }) => [id, rate]));
  const isAnyTaxed = lines.some(({ tax }) => Object.keys(tax).length > 0);
  const untaxed: Category = { id: isAnyTaxed || taxNumber !== '' ? 'E' : 'O', percent: '0' };
  return ({ tax }) => {
    const [id] = Object.keys(tax);
    if (id === undefined) return untaxed;
    const percent = rates.get(id) ?? '0';
    return { id: rateOf(percent) === 0 ? 'Z' : 'S', percent };
  };
}

function root(of: UblOf, buyer: Buyer): Element {
  const { invoice, number, vendor, credits, business, currency } = of;
  const isCredit = invoice.sort === 'credit';
  const amount = amountsIn(currency);
  const categoryOf = categories(invoice, vendor);
  const net = sum(invoice.lines.map((line) => line.net));
  const name = isCredit ? 'CreditNote' : 'Invoice';
  const type = isCredit
    ? TYPE.credit
    : invoice.sourceIs === 'order'
      ? TYPE.prepayment
      : TYPE.invoice;
  const notes = [invoice.note, invoice.foot].filter((each) => each !== '').join('\n');
  const children: Element[] = [
    ['cbc:CustomizationID', SPECIFICATION],
    ['cbc:ID', number],
    ['cbc:IssueDate', invoice.issued],
    isCredit ? null : ['cbc:DueDate', invoice.due],
    [`cbc:${name}TypeCode`, type],
    notes === '' ? null : ['cbc:Note', notes],
    ['cbc:DocumentCurrencyCode', currency],
    // BT-10 and BT-13: receivers ask for one or the other, and people know one number.
    ...(buyer.reference === undefined
      ? []
      : ([
          ['cbc:BuyerReference', buyer.reference],
          ['cac:OrderReference', [['cbc:ID', buyer.reference]]],
        ] as const)),
    credits === undefined
      ? null
      : [
          'cac:BillingReference',
          [
            [
              'cac:InvoiceDocumentReference',
              [
                ['cbc:ID', credits.number],
                ['cbc:IssueDate', credits.issued],
              ],
            ],
          ],
        ],
    [
      'cac:AccountingSupplierParty',
      [party({ ...vendor, company: vendor.name, name: '' }, business, 'seller')],
    ],
    ['cac:AccountingCustomerParty', [party(buyer, '', 'buyer')]],
    isCredit ? null : payTo(vendor, number),
    taxTotal(invoice, categoryOf, amount),
    [
      'cac:LegalMonetaryTotal',
      [
        amount('LineExtensionAmount', net),
        amount('TaxExclusiveAmount', net),
        amount('TaxInclusiveAmount', invoice.total),
        invoice.paid === 0 ? null : amount('PrepaidAmount', invoice.paid),
        amount('PayableAmount', invoice.total - invoice.paid),
      ],
    ],
    ...invoice.lines.map((line, at) => lineElement(line, at, categoryOf(line), isCredit, amount)),
  ];
  const xmlns = `urn:oasis:names:specification:ubl:schema:xsd:${name}-2`;
  return [name, children, { xmlns, ...NAMESPACES }];
}

type Amounts = (name: string, minor: number) => Element;
const amountsIn = (currency: string): Amounts => {
  const { decimals } = currencyOf(currency);
  return (name, minor) => [`cbc:${name}`, decimal(minor, decimals), { currencyID: currency }];
};

/** Minor units with a point. */
function decimal(minor: number, decimals: number): string {
  const sign = minor < 0 ? '-' : '';
  const figures = String(Math.abs(minor)).padStart(decimals + 1, '0');
  return decimals === 0
    ? `${sign}${figures}`
    : `${sign}${figures.slice(0, -decimals)}.${figures.slice(-decimals)}`;
}

/** Numbers that are of value added tax begin with their country (ISO 3166-1; Greece writes EL). */
const isVatNumber = (number: string): boolean => /^[A-Z]{2}[0-9A-Z+*]{2,}$/.test(bare(number));
const bare = (number: string): string => number.toUpperCase().replaceAll(/[\s.-]/g, '');

function party(who: Buyer, id: string, role: 'seller' | 'buyer'): Element {
  const { name, company, address, country, taxNumber, email } = who;
  const lines = address
    .split(/\r?\n|,\s/)
    .map((each) => each.trim())
    .filter((each) => each !== '');
  const [street, second, ...rest] = lines;
  const isVat = isVatNumber(taxNumber);
  const scheme = isVat ? 'VAT' : 'TAX';
  // A buyer has a number of value added tax or none.
  const hasNumber = taxNumber !== '' && (isVat || role === 'seller');
  return [
    'cac:Party',
    [
      // An address for mail (Electronic Address Scheme EM).
      email === '' ? null : ['cbc:EndpointID', email, { schemeID: 'EM' }],
      id === '' ? null : ['cac:PartyIdentification', [['cbc:ID', id]]],
      [
        'cac:PostalAddress',
        [
          street === undefined ? null : ['cbc:StreetName', street],
          second === undefined ? null : ['cbc:AdditionalStreetName', second],
          rest.length === 0 ? null : ['cac:AddressLine', [['cbc:Line', rest.join(', ')]]],
          ['cac:Country', [['cbc:IdentificationCode', country]]],
        ],
      ],
      hasNumber
        ? [
            'cac:PartyTaxScheme',
            [
              ['cbc:CompanyID', isVat ? bare(taxNumber) : taxNumber],
              ['cac:TaxScheme', [['cbc:ID', scheme]]],
            ],
          ]
        : null,
      ['cac:PartyLegalEntity', [['cbc:RegistrationName', company === '' ? name : company]]],
      company === '' || name === '' ? null : ['cac:Contact', [['cbc:Name', name]]],
    ],
  ];
}

const payTo = ({ iban, bic, holder }: Vendor, number: string): Element =>
  iban === ''
    ? null
    : [
        'cac:PaymentMeans',
        [
          ['cbc:PaymentMeansCode', TRANSFER],
          ['cbc:PaymentID', number],
          [
            'cac:PayeeFinancialAccount',
            [
              ['cbc:ID', iban],
              holder === '' ? null : ['cbc:Name', holder],
              bic === '' ? null : ['cac:FinancialInstitutionBranch', [['cbc:ID', bic]]],
            ],
          ],
        ],
      ];

const categoryElement = (name: string, { id, percent }: Category, isTotal: boolean): Element => [
  name,
  [
    ['cbc:ID', id],
    // What is out of scope has no rate.
    id === 'O' ? null : ['cbc:Percent', percent],
    isTotal && (id === 'E' || id === 'O') ? ['cbc:TaxExemptionReason', 'Not taxed'] : null,
    ['cac:TaxScheme', [['cbc:ID', 'VAT']]],
  ],
];

/** By category and rate: what lines of each come to, and their tax. */
function taxTotal(
  { lines, taxes }: Row<'invoices'>,
  categoryOf: (line: InvoiceLine) => Category,
  amount: Amounts,
): Element {
  const groups = new Map<string, { category: Category; base: number; tax: number }>();
  for (const line of lines) {
    const category = categoryOf(line);
    // Two taxes of one rate are one rate there.
    const key = `${category.id} ${String(rateOf(category.percent))}`;
    const group = groups.get(key) ?? { category, base: 0, tax: 0 };
    group.base += line.net;
    group.tax += line.total - line.net;
    groups.set(key, group);
  }
  return [
    'cac:TaxTotal',
    [
      amount('TaxAmount', sum(taxes.map((tax) => tax.amount))),
      ...[...groups.values()].map(({ category, base, tax }): Element => [
        'cac:TaxSubtotal',
        [
          amount('TaxableAmount', base),
          amount('TaxAmount', tax),
          categoryElement('cac:TaxCategory', category, true),
        ],
      ]),
    ],
  ];
}

/** UN/ECE Recommendation 20. */
const UNITS: Readonly<Record<string, string>> = {
  ...{ '': 'C62', kg: 'KGM', g: 'GRM', l: 'LTR', ml: 'MLT', m: 'MTR', cm: 'CMT' },
  ...{ h: 'HUR', hour: 'HUR', min: 'MIN', day: 'DAY', lb: 'LBR', oz: 'ONZ' },
};

/**
 * A line's price is what all of it comes to, for so many: then price, quantity and net agree to the last figure. No price
 * is below nothing; where a line is, its quantity is.
 */
function lineElement(
  { name, detail, unit, quantity, net }: InvoiceLine,
  at: number,
  category: Category,
  isCredit: boolean,
  amount: Amounts,
): Element {
  const many = quantity === 0 ? 1000 : Math.abs(quantity);
  const unitCode = UNITS[unit.toLowerCase()] ?? 'ZZ';
  const signed = `${net < 0 ? '-' : ''}${quantityText(many)}`;
  return [
    isCredit ? 'cac:CreditNoteLine' : 'cac:InvoiceLine',
    [
      ['cbc:ID', String(at + 1)],
      [isCredit ? 'cbc:CreditedQuantity' : 'cbc:InvoicedQuantity', signed, { unitCode }],
      amount('LineExtensionAmount', net),
      [
        'cac:Item',
        [
          detail === '' ? null : ['cbc:Description', detail],
          ['cbc:Name', name],
          categoryElement('cac:ClassifiedTaxCategory', category, false),
        ],
      ],
      [
        'cac:Price',
        [
          amount('PriceAmount', Math.abs(net)),
          ['cbc:BaseQuantity', quantityText(many), { unitCode }],
        ],
      ],
    ],
  ];
}

function written(element: Element, indent = ''): string {
  if (element === null) return '';
  const [name, holds, attributes = {}] = element;
  const said = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escaped(value)}"`)
    .join('');
  if (typeof holds === 'string') return `${indent}<${name}${said}>${escaped(holds)}</${name}>`;
  const inside = holds
    .map((each) => written(each, `${indent}  `))
    .filter((each) => each !== '')
    .join('\n');
  return `${indent}<${name}${said}>\n${inside}\n${indent}</${name}>`;
}

/** What XML 1.0 has no character for is left out. */
const escaped = (text: string): string =>
  text
    // eslint-disable-next-line no-control-regex -- these are the ones that must not stand in it
    .replaceAll(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
