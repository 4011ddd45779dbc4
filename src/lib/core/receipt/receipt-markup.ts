/** Lines of paper as a ReceiptLine document, which printers and pictures are made of. */
import { receiptCode, type Receipt } from './receipt';
import { fitted, type Look, type PaperLine } from './receipt-text';

/**
 * @param receipt For the code at its foot.
 * @param width Letters on a line.
 */
export function receiptMarkup(
  lines: readonly PaperLine[],
  receipt: Pick<Receipt, 'number' | 'check'>,
  width: number,
): string {
  return [
    ...fitted(lines, width).map(markup),
    `{code:${receiptCode(receipt)};option:qrcode,4,m}`,
  ].join('\n');
}

function markup(line: PaperLine): string {
  switch (line.is) {
    case 'rule':
      return '---';
    case 'centre':
      return looked(line.text, line.look);
    case 'text': {
      // A blank behind a column sets it left, one before it right.
      const left = looked(line.left.trim(), line.look);
      return line.right === '' ? `|${left} |` : `|${left} | ${looked(line.right, line.look)}|`;
    }
  }
}

/** `^^` is twice as high, a quotation mark on both sides is strong. */
function looked(text: string, look: Look): string {
  const safe = text.replace(/[\\|{}~_"`^]/g, '\\$&');
  if (look === 'large') return `^^^${safe}^^^`;
  return look === 'strong' ? `"${safe}"` : safe;
}
