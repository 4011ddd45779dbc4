/**
 * A receipt as text, line by line, for paper of so many letters and for letters: what stands left, what
 * stands right, and how it is set. Printers, pictures and mail are made of these lines.
 */
import { figureText, moneyText } from '../money/amount-text';
import { quantityText, sum, thousandths } from '../money/units';
import { taxName } from '../pricing/tax-name';
import type { Receipt, ReceiptPart } from './receipt';

/** One line of paper; `rule` is a line drawn across. */
export type PaperLine =
  | { readonly is: 'text'; readonly left: string; readonly right: string; readonly look: Look }
  | { readonly is: 'centre'; readonly text: string; readonly look: Look }
  | { readonly is: 'rule' };
export type Look = 'plain' | 'small' | 'strong' | 'large';

export interface PaperWords {
  readonly locale: string;
  /** Day and time as the event's clock shows them. */
  readonly when: string;
}

/** The lines of a receipt, in order. A gift receipt has no amount in it at all. */
export function paperLines(receipt: Receipt, { locale, when }: PaperWords): readonly PaperLine[] {
  const figure = (amount: number): string => figureText(amount, receipt.currency, locale);
  const money = (amount: number): string => moneyText(amount, receipt.currency, locale);
  const lines: PaperLine[] = [];
  const centre = (text: string, look: Look = 'plain'): void => {
    if (text !== '') lines.push({ is: 'centre', text, look });
  };
  const text = (left: string, right = '', look: Look = 'plain'): void =>
    void lines.push({ is: 'text', left, right, look });
  const rule = (): void => void lines.push({ is: 'rule' });

  centre(receipt.head, 'strong');
  centre(receipt.isGift ? `Gift receipt ${receipt.number}` : `Sale ${receipt.number}`, 'strong');
  if (receipt.isVoid) centre('void', 'strong');
  if (receipt.isAgain) centre('printed again', 'strong');
  centre([when, receipt.event].filter((part) => part !== '').join(', '), 'small');
  if (receipt.seller !== '') centre(`served by ${receipt.seller}`, 'small');
  for (const order of receipt.orders) centre(`order ${order}`, 'small');
  rule();
  for (const line of receipt.lines) {
    const many = quantityText(thousandths(line.quantity));
    const quantity = line.unit === '' ? many : `${many} ${line.unit}`;
    text(`${quantity} × ${line.name}`, receipt.isGift ? '' : figure(line.total));
    if (!receipt.isGift && (line.quantity !== 1000 || line.discount !== 0)) {
      const each = `at ${figure(line.each)}${line.unit === '' ? '' : ` a ${line.unit}`}`;
      text(`  ${each}${line.discount === 0 ? '' : `, less ${figure(line.discount)}`}`, '', 'small');
    }
    for (const more of line.more) text(`  ${more}`, '', 'small');
  }
  rule();
  if (!receipt.isGift) {
    sums(receipt, text, figure, money);
    earnedLines(receipt, text, money);
    rule();
  }
  cameBack(receipt, text, figure, money);
  if (receipt.back.length > 0) rule();
  centre(receipt.foot, 'small');
  return lines;
}

function sums(
  receipt: Receipt,
  text: (left: string, right?: string, look?: Look) => void,
  figure: (amount: number) => string,
  money: (amount: number) => string,
): void {
  if (receipt.service !== 0) text('Service charge', figure(receipt.service));
  if (receipt.uplift !== 0) text('Card price above cash price', figure(receipt.uplift));
  if (!receipt.isTaxIncluded)
    for (const { name, rate, amount } of receipt.taxes) text(taxName(name, rate), figure(amount));
  text('Total', money(receipt.total), 'large');
  for (const part of receipt.parts) partLines(part, text, figure);
  if (receipt.rounding !== 0) text('Rounded', figure(receipt.rounding));
  if (receipt.isTaxIncluded)
    for (const { name, rate, base, amount } of receipt.taxes)
      text(`${taxName(name, rate)} of ${figure(base)}`, figure(amount), 'small');
}

/** What came back since, and what of the sale is left; of a gift only the goods. */
function cameBack(
  { back, total, isGift }: Receipt,
  text: (left: string, right?: string, look?: Look) => void,
  figure: (amount: number) => string,
  money: (amount: number) => string,
): void {
  for (const each of back) {
    const isOff = each.lines.every(({ off }) => off > 0);
    // What was paid for it is not a gift's business.
    if (isGift && isOff) continue;
    const what = isOff ? 'Taken off afterwards' : 'Came back';
    text(`${what}, ${each.number}`, isGift ? '' : figure(-each.total));
    if (each.promotion > 0 && !isGift)
      text('  and back as it was paid', figure(-each.promotion), 'small');
    for (const { quantity, unit, name, off } of each.lines) {
      if (off > 0) {
        if (!isGift) text(`  ${money(off)} off ${name}`, '', 'small');
        continue;
      }
      const many = quantityText(thousandths(quantity));
      text(`  ${many}${unit === '' ? '' : ` ${unit}`} × ${name}`, '', 'small');
    }
  }
  if (back.length > 0 && !isGift) {
    const off = back.map((each) => each.total - each.surcharge + each.promotion);
    text('What is left', money(total - sum(off)), 'strong');
  }
}

const AFTER = { left: '  left on it', owed: '  owed in all', points: '  points left' } as const;

/** Points that it brought, and rewards that it reached: nothing for whoever is given the goods. */
function earnedLines(
  { earned }: Receipt,
  text: (left: string, right?: string, look?: Look) => void,
  money: (amount: number) => string,
): void {
  if (earned == null) return;
  const { points, after, rewards } = earned;
  if (points > 0) {
    text('Points for this', String(points));
    text('  points now', String(after), 'small');
  }
  for (const { name, value, times } of rewards)
    text(
      `Reward reached${times === 1 ? '' : ` ${String(times)} times`}: ${name}, ${money(value)} off next time`,
      '',
      'strong',
    );
}

function partLines(
  {
    name,
    reference,
    amount,
    change,
    surcharge,
    tip,
    isCarried,
    isHeld,
    isSigned,
    approval,
    share,
    after,
  }: ReceiptPart,
  text: (left: string, right?: string, look?: Look) => void,
  figure: (amount: number) => string,
): void {
  const who = share === null ? '' : `, share ${String(share)}`;
  text(`${name}${reference === '' ? '' : ` ${reference}`}${who}`, figure(amount));
  if (surcharge !== 0) text('  surcharge in it', figure(surcharge), 'small');
  if (tip !== 0) text('  tip in it, thank you', figure(tip), 'small');
  if (approval !== '') text(`  approval ${approval}`, '', 'small');
  if (isSigned) text('  signed for', '', 'small');
  if (isHeld) text('  held, to be taken later', '', 'small');
  if (isCarried) text('  taken with no network, to be authorised', '', 'small');
  if (change !== 0) text('  change', figure(change), 'small');
  if (after !== null)
    text(
      AFTER[after.is],
      after.is === 'points' ? String(after.amount) : figure(after.amount),
      'small',
    );
}

/**
 * Lines that fit on paper of so many letters: long ones are broken between words, and what stands right
 * stays with the first of them.
 */
export const fitted = (lines: readonly PaperLine[], width: number): readonly PaperLine[] =>
  lines.flatMap((line): PaperLine[] => {
    if (line.is === 'rule') return [line];
    if (line.is === 'centre') return wrapped(line.text, width).map((text) => ({ ...line, text }));
    const room = width - line.right.length - (line.right === '' ? 0 : 1);
    return wrapped(line.left, Math.max(8, room)).map((left, at) => ({
      ...line,
      left,
      right: at === 0 ? line.right : '',
    }));
  });

/** As plain text, `width` letters wide. */
export const plainText = (lines: readonly PaperLine[], width: number): string =>
  fitted(lines, width)
    .map((line): string => {
      if (line.is === 'rule') return '-'.repeat(width);
      if (line.is === 'centre')
        return `${' '.repeat(Math.floor((width - line.text.length) / 2))}${line.text}`.trimEnd();
      return line.right === ''
        ? line.left
        : `${line.left.padEnd(width - line.right.length)}${line.right}`;
    })
    .join('\n');

function wrapped(text: string, width: number): string[] {
  const indent = /^ */.exec(text)?.[0] ?? '';
  const lines: string[] = [];
  let line = indent;
  for (const word of text.trim().split(/\s+/)) {
    const next = line.trim() === '' ? `${indent}${word}` : `${line} ${word}`;
    if (next.length <= width || line.trim() === '') line = next;
    else {
      lines.push(line);
      line = `${indent}${word}`;
    }
    while (line.length > width) {
      lines.push(line.slice(0, width));
      line = line.slice(width);
    }
  }
  return [...lines, line];
}
