/** `npm run bench`: every figure with what it is held against, measured in one run. */
import { RunningTill } from '../support/running-till';
import { deviceFigures } from './device-bench';
import { print } from './figures';
import { journalFigures } from './journal-bench';
import { serverFigures } from './server-bench';
import { startFigures } from './start-bench';

const till = await RunningTill.start();
try {
  print([
    ...journalFigures(),
    ...(await deviceFigures(till)),
    ...(await startFigures()),
    ...(await serverFigures(till)),
  ]);
} finally {
  await till.end();
}
