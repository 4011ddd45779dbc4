/** Goods of sales that came back, what goes back to cards for them, and what the acquirer said of that. */
import type { Migration } from '../migration';

export const returns: Migration = {
  name: '0030-returns',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_returns (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`sale\` VARCHAR(40) NOT NULL DEFAULT '',
      \`saleNumber\` VARCHAR(20) NOT NULL DEFAULT '',
      \`number\` VARCHAR(20) NOT NULL DEFAULT '',
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`hour\` BIGINT NOT NULL DEFAULT 0,
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      \`place\` VARCHAR(40) NOT NULL DEFAULT '',
      \`lines\` JSON NOT NULL DEFAULT '[]',
      \`takes\` JSON NOT NULL DEFAULT '[]',
      \`surcharges\` JSON NOT NULL DEFAULT '[]',
      \`money\` JSON NOT NULL DEFAULT '[]',
      \`total\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`id\`),
      KEY by_sale (business, \`sale\`),
      KEY by_event (business, \`event\`),
      KEY by_number (business, \`number\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_card_refunds (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`return\` VARCHAR(40) NOT NULL DEFAULT '',
      \`payment\` VARCHAR(40) NOT NULL DEFAULT '',
      \`way\` VARCHAR(40) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`state\` VARCHAR(10) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(120) NOT NULL DEFAULT '',
      \`resultAt\` VARCHAR(30) NOT NULL DEFAULT '',
      \`askedStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`resultStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`),
      KEY by_payment (business, \`payment\`)
    )`,
    `CREATE TABLE IF NOT EXISTS cards_refunded (
      business CHAR(36) NOT NULL,
      refund CHAR(36) NOT NULL,
      state VARCHAR(10) NOT NULL,
      amount BIGINT NOT NULL,
      reason VARCHAR(120) NOT NULL DEFAULT '',
      PRIMARY KEY (business, refund)
    )`,
    // Sales are found by who bought, by their day, by a payment's reference and by a card's last four.
    'ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_customer (business, `customer`)',
    'ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_day (business, `day`)',
    'ALTER TABLE books_payments ADD KEY IF NOT EXISTS by_reference (business, `reference`)',
    'ALTER TABLE books_card_payments ADD KEY IF NOT EXISTS by_last4 (business, `last4`)',
  ],
};
