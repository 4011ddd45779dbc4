/** `npm run bench`: every figure with what it is held against, measured in one run. */
import { RunningTill } from '../support/running-till';
import { deviceFigures } from './device-bench';
import { print, type Figure } from './figures';
import { journalFigures } from './journal-bench';
import { findFigures } from './find-bench';
import { chargesFigures } from './charges-bench';
import { heldFigures } from './held-bench';
import { settleFigures } from './settle-bench';
import { serverFigures } from './server-bench';
import { stockFigures } from './stock-bench';
import { startFigures } from './start-bench';

const till = await RunningTill.start();
try {
  /** `npm run bench -- device` for one part alone. */
  const only = process.argv.slice(2);
  const parts: readonly (readonly [string, () => Promise<Figure[]>])[] = [
    ['journal', () => Promise.resolve(journalFigures())],
    ['device', () => deviceFigures(till)],
    ['stock', () => stockFigures(till)],
    ['start', () => startFigures()],
    ['server', () => serverFigures(till)],
    ['settle', () => settleFigures(till)],
    ['find', () => findFigures(till)],
    ['held', () => heldFigures(till)],
    ['charges', () => chargesFigures()],
  ];
  const figures: Figure[] = [];
  for (const [name, part] of parts)
    if (only.length === 0 || only.includes(name)) figures.push(...(await part()));
  print(figures);
} finally {
  await till.end();
}
