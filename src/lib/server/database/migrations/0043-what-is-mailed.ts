/** What two devices ask for at once is sent once; makers' statements. */
import type { Migration } from '../migration';

export const whatIsMailed: Migration = {
  name: '0043-what-is-mailed',
  statements: [
    `ALTER TABLE receipts_sent
      ADD COLUMN IF NOT EXISTS once VARCHAR(90) NULL,
      ADD UNIQUE KEY IF NOT EXISTS sent_once (business, once)`,
    `CREATE TABLE IF NOT EXISTS books_maker_mails (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`device\` VARCHAR(40) NOT NULL DEFAULT '',
      \`maker\` VARCHAR(40) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_event (business, \`event\`)
    )`,
  ],
};
