/** Models of what is not books: the daybook itself, and who may use it. */
import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { ToBeSeen } from '../../core/daybook/sync-messages';

/** Where a business's daybook stands. Locked first by everything that appends. */
export class Counter extends Model<InferAttributes<Counter>, InferCreationAttributes<Counter>> {
  declare business: string;
  /** BIGINT, as text. */
  declare position: string;
}

/** An entry, kept word for word, with what it is looked up by. */
export class StoredEntry extends Model<
  InferAttributes<StoredEntry>,
  InferCreationAttributes<StoredEntry>
> {
  declare business: string;
  declare position: string;
  declare id: string;
  declare device: string;
  declare seq: number;
  declare kind: string;
  declare event: string | null;
  declare stamp: string;
  declare hash: string;
  declare state: 'applied' | ToBeSeen;
  /** Why it was kept, as JSON; empty for what was applied. */
  declare fault: string;
  /** The entry as JSON. */
  declare entry: string;
}

/** A device that may use the daybook of one business. */
export class EnrolledDevice extends Model<
  InferAttributes<EnrolledDevice>,
  InferCreationAttributes<EnrolledDevice>
> {
  declare business: string;
  declare device: string;
  declare number: number;
  /** SHA-256 of its token. */
  declare token: string;
  /** The code it was enrolled with, so that a lost answer can be asked for again. */
  declare code: string;
  declare isShutOut: CreationOptional<boolean>;
  /** Where its chain stands. */
  declare seq: CreationOptional<number>;
  declare hash: CreationOptional<string>;
  declare stamp: CreationOptional<string>;
}

/** A code that enrols one device; only its hash is kept. */
export class EnrolmentCode extends Model<
  InferAttributes<EnrolmentCode>,
  InferCreationAttributes<EnrolmentCode>
> {
  declare code: string;
  declare business: string;
  /** ISO 8601 in UTC. */
  declare expires: string;
  declare usedBy: string | null;
}

const id = DataTypes.CHAR(36);
const hash = DataTypes.CHAR(64);

export interface Models {
  readonly counters: typeof Counter;
  readonly entries: typeof StoredEntry;
  readonly devices: typeof EnrolledDevice;
  readonly codes: typeof EnrolmentCode;
}

/** Binds the models to a connection. Each connection has its own, so tests can open several. */
export function modelsOn(sequelize: Sequelize): Models {
  const counters = class extends Counter {};
  counters.init(
    { business: { type: id, primaryKey: true }, position: DataTypes.BIGINT },
    { sequelize, tableName: 'daybook_counters', modelName: 'counter' },
  );
  const entries = class extends StoredEntry {};
  entries.init(
    {
      business: { type: id, primaryKey: true },
      position: { type: DataTypes.BIGINT, primaryKey: true },
      id,
      device: id,
      seq: DataTypes.INTEGER,
      kind: DataTypes.STRING(40),
      event: id,
      stamp: DataTypes.STRING(60),
      hash,
      state: DataTypes.STRING(10),
      fault: DataTypes.STRING(1000),
      entry: DataTypes.TEXT('long'),
    },
    { sequelize, tableName: 'daybook_entries', modelName: 'entry' },
  );
  const devices = class extends EnrolledDevice {};
  devices.init(
    {
      business: { type: id, primaryKey: true },
      device: { type: id, primaryKey: true },
      number: DataTypes.INTEGER,
      token: hash,
      code: hash,
      isShutOut: { type: DataTypes.BOOLEAN, defaultValue: false },
      seq: { type: DataTypes.INTEGER, defaultValue: 0 },
      hash: { type: hash, defaultValue: '0'.repeat(64) },
      stamp: { type: DataTypes.STRING(60), defaultValue: '' },
    },
    { sequelize, tableName: 'access_devices', modelName: 'device' },
  );
  const codes = class extends EnrolmentCode {};
  codes.init(
    {
      code: { type: hash, primaryKey: true },
      business: id,
      expires: DataTypes.STRING(30),
      usedBy: id,
    },
    { sequelize, tableName: 'access_codes', modelName: 'code' },
  );
  return { counters, entries, devices, codes };
}
