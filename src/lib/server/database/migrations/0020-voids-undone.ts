/** Voids that are taken back, because a sale had been voided twice. */
import type { Migration } from '../migration';

export const voidsUndone: Migration = {
  name: '0020-voids-undone',
  statements: [
    `CREATE TABLE IF NOT EXISTS books_voids_undone (
      business CHAR(36) NOT NULL,
      \`id\` VARCHAR(40) NOT NULL,
      \`event\` VARCHAR(40) NULL,
      \`by\` VARCHAR(40) NULL,
      \`at\` VARCHAR(30) NOT NULL DEFAULT '',
      \`void\` VARCHAR(40) NOT NULL DEFAULT '',
      \`sale\` VARCHAR(40) NOT NULL DEFAULT '',
      \`reason\` VARCHAR(200) NOT NULL DEFAULT '',
      PRIMARY KEY (business, \`id\`),
      KEY by_sale (business, \`sale\`),
      KEY by_event (business, \`event\`)
    )`,
  ],
};
