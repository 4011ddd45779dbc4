/** Customers as vCards (RFC 6350), out and in; set and read by a library. */
import * as asIs from 'ical.js';
import type { Row } from '../books/tables';
import type { CsvLine } from './goods-table';

// Node takes it as one thing, bundlers as another.
const ICAL = 'default' in asIs ? asIs.default : asIs;
type Component = InstanceType<typeof ICAL.Component>;

type Customer = Pick<
  Row<'customers'>,
  'id' | 'name' | 'company' | 'email' | 'phone' | 'address' | 'note'
>;

/** Version 4.0, a card for each, lines ending in CRLF. */
export const vcardsOf = (customers: readonly Customer[]): string =>
  customers.map((each) => `${cardOf(each).toString()}\r\n`).join('');

function cardOf({ id, name, company, email, phone, address, note }: Customer): Component {
  const card = new ICAL.Component('vcard');
  const put = (property: string, value: string | readonly string[]): void => {
    if (value !== '') card.addPropertyWithValue(property, value);
  };
  put('version', '4.0');
  put('uid', `urn:uuid:${id}`);
  put('fn', name);
  put('org', company);
  put('email', email);
  put('tel', phone);
  // One text as it was typed: which part of it is what nobody said. The library loses backslashes in parts.
  if (address !== '') put('adr', ['', '', address.replaceAll('\\', '/'), '', '', '', '']);
  put('note', note);
  return card;
}

/** Cards of any version as lines of a table of customers; or what is wrong with the file. */
export function customersFromVcards(text: string): readonly CsvLine[] | string {
  // Each apart: what the library cannot read of one is told with its number.
  const cards = text
    .replace(/^\uFEFF/, '')
    .split(/^END:VCARD[ \t]*$/im)
    .map((card) => card.trim())
    .filter((card) => card !== '');
  if (cards.length === 0) return 'There is nothing in this file.';
  const lines: CsvLine[] = [];
  for (const [at, card] of cards.entries()) {
    try {
      const parsed = ICAL.parse(`${card.replace(/\r?\n/g, '\r\n')}\r\nEND:VCARD\r\n`) as unknown[];
      lines.push(lineOf(new ICAL.Component((isList(parsed) ? parsed[0] : parsed) as never)));
    } catch (error) {
      const why = error instanceof Error ? error.message : 'it cannot be read';
      return `Card ${String(at + 1)} is no vCard: ${why}.`;
    }
  }
  return lines;
}

/** Several components come as a list of them, one as itself. */
const isList = (parsed: readonly unknown[]): boolean => Array.isArray(parsed[0]);

function lineOf(card: Component): CsvLine {
  const [name, mail, phone] = [textOf(card, 'fn'), textOf(card, 'email'), textOf(card, 'tel')];
  const note = textOf(card, 'note');
  return {
    name: name === '' ? nameOf(card) : name,
    company: partsOf(card, 'org')[0] ?? '',
    email: mail.replace(/^mailto:/i, ''),
    phone: phone.replace(/^tel:/i, ''),
    address: partsOf(card, 'adr').join(', '),
    ...(note === '' ? {} : { note }),
  };
}

const textOf = (card: Component, property: string): string => {
  const value: unknown = card.getFirstPropertyValue(property);
  return typeof value === 'string' ? value.trim() : '';
};

/** Parts of a value that has several, those that are not empty. */
function partsOf(card: Component, property: string): readonly string[] {
  const value: unknown = card.getFirstPropertyValue(property);
  const parts: readonly unknown[] = Array.isArray(value) ? value.flat() : [value];
  return parts.flatMap((part) =>
    typeof part === 'string' && part.trim() !== '' ? [part.trim()] : [],
  );
}

/** Given name first, as people are called. */
const nameOf = (card: Component): string => {
  const value: unknown = card.getFirstPropertyValue('n');
  const [family, given] = Array.isArray(value) ? (value.flat() as unknown[]) : [value];
  return [given, family]
    .flatMap((part) => (typeof part === 'string' && part !== '' ? [part] : []))
    .join(' ');
};
