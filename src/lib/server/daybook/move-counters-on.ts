import type { Database } from '../database/database';

const STEP = 1000;

/**
 * Moves every business's position on after the database did not end cleanly, so that no position
 * a reader may have seen is ever given again. Readers do not mind numbers that are left out.
 */
export async function moveCountersOn({ sequelize }: Database): Promise<void> {
  await sequelize.query('UPDATE daybook_counters SET position = position + ?', {
    replacements: [STEP],
  });
}
