/** Settling: reports of acquirers, what was joined by hand, who was paid, what stood when an event was settled. */
import type { Migration } from '../migration';

const SAID = `\`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NOT NULL DEFAULT ''`;

export const settling: Migration = {
  name: '0027-settling',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_event_accounts (
      business CHAR(36) NOT NULL,
      \`event\` VARCHAR(40) NOT NULL,
      \`account\` VARCHAR(60) NOT NULL,
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`event\`, \`account\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_card_lines (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`source\` VARCHAR(60) NOT NULL DEFAULT '',
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`sort\` VARCHAR(10) NOT NULL DEFAULT '',
      \`reference\` VARCHAR(80) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`fee\` BIGINT NOT NULL DEFAULT 0,
      \`scheme\` VARCHAR(20) NOT NULL DEFAULT '',
      \`last4\` VARCHAR(4) NOT NULL DEFAULT '',
      \`paidAt\` VARCHAR(35) NOT NULL DEFAULT '',
      \`payout\` VARCHAR(60) NOT NULL DEFAULT '',
      \`payoutDay\` VARCHAR(10) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_reference (business, \`reference\`),
      KEY by_day (business, \`day\`),
      KEY by_payout (business, \`payout\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_card_joins (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`payment\` VARCHAR(40) NULL,
      \`why\` VARCHAR(500) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_payment (business, \`payment\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_money_came (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`day\` VARCHAR(10) NOT NULL DEFAULT '',
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`fees\` BIGINT NOT NULL DEFAULT 0,
      \`from\` JSON NOT NULL DEFAULT '[]',
      \`what\` VARCHAR(120) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_tip_shares (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`how\` VARCHAR(10) NOT NULL DEFAULT '',
      \`taken\` JSON NOT NULL DEFAULT '[]',
      \`shares\` JSON NOT NULL DEFAULT '[]',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_paid_out (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`for\` VARCHAR(10) NOT NULL DEFAULT '',
      \`whom\` VARCHAR(40) NULL,
      \`amount\` BIGINT NOT NULL DEFAULT 0,
      \`from\` VARCHAR(10) NOT NULL DEFAULT '',
      \`what\` VARCHAR(120) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_settled_events (
      business CHAR(36) NOT NULL,
      ${SAID},
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`balances\` JSON NOT NULL DEFAULT '[]',
      \`heads\` JSON NOT NULL DEFAULT '[]',
      \`leftOut\` JSON NOT NULL DEFAULT '[]',
      \`accepted\` JSON NOT NULL DEFAULT '[]',
      \`isAddendum\` TINYINT(1) NOT NULL DEFAULT 0,
      \`digest\` VARCHAR(64) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `UPDATE books_staff SET rights = JSON_ARRAY_APPEND(rights, '$', 'event.settle')
      WHERE JSON_CONTAINS(rights, '"set-up"') AND NOT JSON_CONTAINS(rights, '"event.settle"')`,
    `ALTER TABLE access_devices
      ADD COLUMN IF NOT EXISTS seenAt BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS headSaid INT NOT NULL DEFAULT 0`,
  ],
};
