/**
 * What one person edits at once has a stamp of its own: the lock of the business, the taxes and the ways of
 * an event, each stage that it reached, and that it went back.
 */
import type { Migration } from '../migration';

const stamp = (name: string): string =>
  `ADD COLUMN IF NOT EXISTS \`${name}\` VARCHAR(60) NOT NULL DEFAULT ''`;

const reached = ['packed', 'trading', 'counted', 'settled'];

export const groupsApart: Migration = {
  name: '0022-groups-apart',
  statements: [
    `ALTER TABLE books_businesses ${stamp('lockStamp')}`,
    "UPDATE books_businesses SET lockStamp = setStamp WHERE lockStamp = ''",
    `ALTER TABLE books_events
      ${['taxesStamp', 'waysStamp', 'backStamp', ...reached.map((stage) => `${stage}Stamp`)].map(stamp).join(',\n      ')},
      ADD COLUMN IF NOT EXISTS \`backTo\` VARCHAR(10) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`backWhy\` VARCHAR(500) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`stage\` VARCHAR(10) NOT NULL DEFAULT '',
      ADD COLUMN IF NOT EXISTS \`stageStamp\` VARCHAR(60) NOT NULL DEFAULT ''`,
    "UPDATE books_events SET taxesStamp = setStamp, waysStamp = setStamp WHERE taxesStamp = ''",
    ...reached.map(
      (stage) =>
        `UPDATE books_events SET ${stage}Stamp = stageStamp WHERE stage = '${stage}' AND ${stage}Stamp = ''`,
    ),
    // What a record holds of a group that nobody has set is what the core says.
    "ALTER TABLE books_businesses ALTER COLUMN typedSide SET DEFAULT '', ALTER COLUMN uplift SET DEFAULT ''",
    'ALTER TABLE books_items ALTER COLUMN isReturnable SET DEFAULT 0, ALTER COLUMN earnsPoints SET DEFAULT 0',
    "ALTER TABLE books_tables ALTER COLUMN size SET DEFAULT ''",
    'ALTER TABLE books_events DROP COLUMN IF EXISTS stage, DROP COLUMN IF EXISTS stageStamp',
  ],
};
