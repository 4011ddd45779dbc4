/** How much room the browser gives, and whether it has promised to keep it. */
export interface StorageReport {
  readonly isKept: boolean;
  /** Bytes; null where the browser does not say. */
  readonly used: number | null;
  readonly room: number | null;
}

/** Asks the browser to keep the data also when it is short of room. */
export async function askToKeep(): Promise<boolean> {
  const { storage } = navigator;
  return (await storage.persisted()) || (await storage.persist());
}

export async function storageReport(): Promise<StorageReport> {
  const { storage } = navigator;
  const [isKept, { usage, quota }] = await Promise.all([storage.persisted(), storage.estimate()]);
  return { isKept, used: usage ?? null, room: quota ?? null };
}

/** Long before it is too late: less than 50 MB, or more than 80 % used. */
export const isLow = ({ used, room }: StorageReport): boolean =>
  used !== null && room !== null && (room - used < 50_000_000 || used / room > 0.8);
