/** The address under which other calendars follow a business's events. */
import type { Migration } from '../migration';

export const calendars: Migration = {
  name: '0025-calendars',
  statements: [
    `CREATE TABLE IF NOT EXISTS access_calendars (
      business CHAR(36) NOT NULL PRIMARY KEY,
      token CHAR(64) NOT NULL,
      made VARCHAR(30) NOT NULL,
      UNIQUE KEY by_token (token)
    )`,
  ],
};
