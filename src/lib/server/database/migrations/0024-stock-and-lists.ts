/**
 * Goods beyond one base: places, suppliers, how goods are bought and carried, each time they move, lists of goods,
 * and counts. Whoever could set the business up can do with stock what now has rights of its own.
 */
import type { Migration } from '../migration';

export const stockAndLists: Migration = {
  name: '0024-stock-and-lists',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_places (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`sort\` VARCHAR(10) NOT NULL DEFAULT '',
      \`within\` VARCHAR(40) NULL,
      \`code\` VARCHAR(40) NOT NULL DEFAULT '',
      \`position\` BIGINT NOT NULL DEFAULT 0,
      \`mostWeight\` BIGINT NULL,
      \`mostCrates\` BIGINT NULL,
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_suppliers (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`email\` VARCHAR(120) NOT NULL DEFAULT '',
      \`phone\` VARCHAR(40) NOT NULL DEFAULT '',
      \`days\` BIGINT NOT NULL DEFAULT 0,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`isActive\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_supplies (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`suppliers\` JSON NOT NULL DEFAULT '[]',
      \`pars\` JSON NOT NULL DEFAULT '[]',
      \`weight\` BIGINT NULL,
      \`perCrate\` BIGINT NULL,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_moves (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(44) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`place\` VARCHAR(40) NOT NULL DEFAULT '',
      \`item\` VARCHAR(40) NOT NULL DEFAULT '',
      \`quantity\` BIGINT NOT NULL DEFAULT 0,
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`kind\` VARCHAR(24) NOT NULL DEFAULT '',
      \`doc\` VARCHAR(40) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_place (business, \`place\`),
      KEY by_item (business, \`item\`),
      KEY by_at (business, \`at\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_lists (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`use\` VARCHAR(10) NOT NULL DEFAULT '',
      \`event\` VARCHAR(40) NULL,
      \`deviceNumber\` BIGINT NOT NULL DEFAULT 0,
      \`number\` BIGINT NOT NULL DEFAULT 0,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`from\` VARCHAR(40) NOT NULL DEFAULT '',
      \`to\` VARCHAR(40) NOT NULL DEFAULT '',
      \`supplier\` VARCHAR(40) NULL,
      \`van\` VARCHAR(40) NULL,
      \`day\` VARCHAR(10) NULL,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`stage\` VARCHAR(10) NOT NULL DEFAULT '',
      \`why\` VARCHAR(200) NOT NULL DEFAULT '',
      \`stageStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_list_lines (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`list\` VARCHAR(40) NOT NULL DEFAULT '',
      \`item\` VARCHAR(40) NOT NULL DEFAULT '',
      \`wanted\` BIGINT NOT NULL DEFAULT 0,
      \`price\` BIGINT NULL,
      \`note\` VARCHAR(200) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_list (business, \`list\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_list_sums (
      business CHAR(36) NOT NULL,
      \`list\` VARCHAR(40) NOT NULL,
      \`item\` VARCHAR(40) NOT NULL,
      \`packed\` BIGINT NOT NULL DEFAULT 0,
      \`sent\` BIGINT NOT NULL DEFAULT 0,
      \`received\` BIGINT NOT NULL DEFAULT 0,
      PRIMARY KEY (business, \`list\`, \`item\`),
      KEY by_list (business, \`list\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_list_acts (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`list\` VARCHAR(40) NOT NULL DEFAULT '',
      \`does\` VARCHAR(10) NOT NULL DEFAULT '',
      \`lines\` BIGINT NOT NULL DEFAULT 0,
      \`quantity\` BIGINT NOT NULL DEFAULT 0,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_list (business, \`list\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_counts (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`deviceNumber\` BIGINT NOT NULL DEFAULT 0,
      \`number\` BIGINT NOT NULL DEFAULT 0,
      \`name\` VARCHAR(80) NOT NULL DEFAULT '',
      \`place\` VARCHAR(40) NOT NULL DEFAULT '',
      \`category\` VARCHAR(80) NOT NULL DEFAULT '',
      \`isBlind\` TINYINT(1) NOT NULL DEFAULT 0,
      \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`how\` VARCHAR(4) NOT NULL DEFAULT '',
      \`endedStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_count_notes (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(44) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`count\` VARCHAR(40) NOT NULL DEFAULT '',
      \`item\` VARCHAR(40) NOT NULL DEFAULT '',
      \`quantity\` BIGINT NOT NULL DEFAULT 0,
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_count (business, \`count\`),
      KEY by_event (business, \`event\`)
    )`,
    `CREATE TABLE IF NOT EXISTS books_counts_accepted (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(44) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`count\` VARCHAR(40) NOT NULL DEFAULT '',
      \`place\` VARCHAR(40) NOT NULL DEFAULT '',
      \`item\` VARCHAR(40) NOT NULL DEFAULT '',
      \`counted\` BIGINT NOT NULL DEFAULT 0,
      \`expected\` BIGINT NOT NULL DEFAULT 0,
      \`stamp\` VARCHAR(60) NOT NULL DEFAULT '',
      \`lost\` BIGINT NOT NULL DEFAULT 0,
      \`retail\` BIGINT NOT NULL DEFAULT 0,
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_place (business, \`place\`),
      KEY by_count (business, \`count\`),
      KEY by_event (business, \`event\`)
    )`,
    `ALTER TABLE books_movements
      ADD COLUMN IF NOT EXISTS \`list\` VARCHAR(40) NULL,
      ADD COLUMN IF NOT EXISTS \`amount\` BIGINT NOT NULL DEFAULT 0,
      ADD COLUMN IF NOT EXISTS \`note\` VARCHAR(500) NOT NULL DEFAULT '',
      ADD KEY IF NOT EXISTS by_list (business, \`list\`)`,
    `ALTER TABLE books_events
      ADD COLUMN IF NOT EXISTS \`fee\` JSON NOT NULL DEFAULT 'null',
      ${['costs', 'single', 'over', 'duty', 'devices', 'things']
        .map((field) => `ADD COLUMN IF NOT EXISTS \`${field}\` JSON NOT NULL DEFAULT '[]'`)
        .join(',\n      ')},
      ${['costs', 'prices', 'people', 'bring']
        .map(
          (group) => `ADD COLUMN IF NOT EXISTS \`${group}Stamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
        )
        .join(',\n      ')}`,
    `CREATE TABLE IF NOT EXISTS books_ticks (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NOT NULL DEFAULT '',
      \`thing\` VARCHAR(40) NOT NULL DEFAULT '',
      \`isDone\` TINYINT(1) NOT NULL DEFAULT 0,
      \`setStamp\` VARCHAR(60) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
    `UPDATE books_staff SET rights = JSON_ARRAY_APPEND(rights, '$', 'stock.move')
      WHERE NOT JSON_CONTAINS(rights, '"stock.move"')`,
    ...['order.approve', 'count.accept', 'event.plan'].map(
      (right) => `UPDATE books_staff SET rights = JSON_ARRAY_APPEND(rights, '$', '${right}')
      WHERE JSON_CONTAINS(rights, '"set-up"') AND NOT JSON_CONTAINS(rights, '"${right}"')`,
    ),
  ],
};
