/** Which device of which business: who an answer is for, whose entries arrive. */
export interface DeviceRef {
  readonly business: string;
  readonly device: string;
  /** An owner takes in what a device had not sent when it was shut out. */
  readonly isTakenIn?: boolean;
  /** The server writes it itself, into a daybook of its own (own-daybook.ts). */
  readonly isServer?: boolean;
}
