/** Cards on file and what the acquirer was told of them, signatures and names of payers, receipts as text messages. */
import type { Migration } from '../migration';

export const cardsOnFile: Migration = {
  name: '0012-cards-on-file',
  statements: [
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`signAbove\` BIGINT NULL`,
    `ALTER TABLE books_customers
      ADD COLUMN IF NOT EXISTS \`cardToken\` VARCHAR(64) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`cardScheme\` VARCHAR(20) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`cardLast4\` VARCHAR(4) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`cardExpiry\` VARCHAR(7) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`cardStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      ADD KEY IF NOT EXISTS by_card (\`cardStamp\`)`,
    `ALTER TABLE books_receipt_asks
      ADD COLUMN IF NOT EXISTS \`customer\` VARCHAR(40) NULL`,
    `CREATE TABLE IF NOT EXISTS books_payers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`customer\` VARCHAR(40) NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`strokes\` JSON NOT NULL DEFAULT '[]',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`),
      KEY by_customer (business, \`customer\`)
    )`,
    // Not of the books: which customers the acquirer has been told to keep no card of, and as of when.
    `CREATE TABLE IF NOT EXISTS cards_forgotten (
      business CHAR(36) NOT NULL,
      customer VARCHAR(40) NOT NULL,
      cardStamp VARCHAR(60) NOT NULL,
      PRIMARY KEY (business, customer)
    )`,
  ],
};
