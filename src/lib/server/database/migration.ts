/** DDL is not transactional in MariaDB, so each statement must be able to run twice. */
export interface Migration {
  readonly name: string;
  readonly statements: readonly string[];
}
