/**
 * What the server itself knows of what arrives: stamps that were held, numbers given out, cards that were
 * asked for and by whom, cards on file, what is still to be asked of the acquirer, receipts in the order in
 * which they were asked for, how much a device has sent. And the books' new fields.
 */
import type { Migration } from '../migration';

export const nothingTrusted: Migration = {
  name: '0014-nothing-trusted',
  statements: [
    `ALTER TABLE daybook_entries
      ADD COLUMN IF NOT EXISTS held VARCHAR(60) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS late TINYINT(1) NOT NULL DEFAULT 0,
      ADD KEY IF NOT EXISTS by_state (business, state, position)`,
    `ALTER TABLE daybook_counters
      ADD COLUMN IF NOT EXISTS clock VARCHAR(60) NOT NULL DEFAULT ''`,
    `ALTER TABLE access_devices
      ADD COLUMN IF NOT EXISTS lastSale INT NULL,
      ADD COLUMN IF NOT EXISTS lastRead INT NULL`,
    `CREATE TABLE IF NOT EXISTS daybook_quotas (
      business CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      day CHAR(10) NOT NULL,
      entries BIGINT NOT NULL,
      bytes BIGINT NOT NULL,
      PRIMARY KEY (business, device, day),
      KEY by_day (day)
    )`,
    // The payment is its reference at the acquirer; `device` is the one that asked first.
    `CREATE TABLE IF NOT EXISTS cards_asked (
      business CHAR(36) NOT NULL,
      payment CHAR(36) NOT NULL,
      device CHAR(36) NOT NULL,
      amount BIGINT NOT NULL,
      currency CHAR(3) NOT NULL,
      state VARCHAR(10) NOT NULL DEFAULT '',
      answered BIGINT NOT NULL DEFAULT 0,
      askedAt BIGINT NOT NULL,
      PRIMARY KEY (business, payment),
      KEY by_state (business, state, askedAt)
    )`,
    // The acquirer's token is worth money: it is nowhere else, and leaves the server for the acquirer alone.
    `CREATE TABLE IF NOT EXISTS cards_on_file (
      business CHAR(36) NOT NULL,
      customer CHAR(36) NOT NULL,
      token VARCHAR(64) NOT NULL,
      last4 VARCHAR(4) NOT NULL,
      asks INT NOT NULL,
      keptAt BIGINT NOT NULL,
      PRIMARY KEY (business, customer)
    )`,
    `INSERT IGNORE INTO cards_on_file (business, customer, token, last4, asks, keptAt)
      SELECT business, id, cardToken, cardLast4, 1, 0 FROM books_customers WHERE cardToken <> ''`,
    `CREATE TABLE IF NOT EXISTS cards_to_check (
      business CHAR(36) NOT NULL,
      entry CHAR(36) NOT NULL,
      payment CHAR(36) NOT NULL,
      dueAt BIGINT NOT NULL,
      PRIMARY KEY (business, entry),
      KEY by_due (dueAt)
    )`,
    `ALTER TABLE receipts_sent
      ADD COLUMN IF NOT EXISTS way VARCHAR(10) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS arrived BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS dueAt BIGINT NOT NULL DEFAULT 0,
      ADD KEY IF NOT EXISTS by_due (state, dueAt)`,
    // Asked for before there was a queue, and not sent yet.
    `INSERT IGNORE INTO receipts_sent (business, id, state, tries, triedAt, way, arrived)
      SELECT business, id, 'due', 0, 0, way, 0 FROM books_receipt_asks`,
    "UPDATE receipts_sent SET state = 'due' WHERE state = 'trying'",
    `UPDATE receipts_sent s JOIN books_receipt_asks a ON a.business = s.business AND a.id = s.id
      SET s.way = a.way WHERE s.way = ''`,
    // How many were sent: by business and day, and by whom they went to (hashed) and day.
    `CREATE TABLE IF NOT EXISTS receipts_counted (
      who CHAR(64) NOT NULL,
      day CHAR(10) NOT NULL,
      sent INT NOT NULL,
      PRIMARY KEY (who, day),
      KEY by_day (day)
    )`,
    `ALTER TABLE books_businesses
      ADD COLUMN IF NOT EXISTS \`forgetAfter\` BIGINT NOT NULL DEFAULT 0`,
    `ALTER TABLE books_staff
      ADD COLUMN IF NOT EXISTS \`pinStamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
    "UPDATE books_staff SET pinStamp = setStamp WHERE pinStamp = ''",
    `ALTER TABLE books_sales ADD KEY IF NOT EXISTS by_slip (business, \`slip\`)`,
    `ALTER TABLE books_card_payments
      ADD COLUMN IF NOT EXISTS \`decision\` VARCHAR(10) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`decidedAmount\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`decidedBy\` VARCHAR(40) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`decidedOn\` VARCHAR(40) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`decidedStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      ADD KEY IF NOT EXISTS by_open (business, \`device\`, \`state\`, \`takenState\`),
      ADD KEY IF NOT EXISTS by_state (business, \`state\`),
      ADD KEY IF NOT EXISTS by_reversed (business, \`reversedStamp\`)`,
    `ALTER TABLE books_slips ADD KEY IF NOT EXISTS by_state (business, \`state\`)`,
    `ALTER TABLE books_stock ADD KEY IF NOT EXISTS by_quantity (business, \`quantity\`)`,
  ],
};
