import { chromium } from '@playwright/test';
import { readFileSync } from 'node:fs';
import { chromiumOptions } from './support/chromium';
const names = process.argv.slice(3);
const b = await chromium.launch(await chromiumOptions());
const p = await b.newPage({ viewport: { width: 400 * names.length, height: 850 } });
await p.setContent(
  '<body style="margin:0;display:flex;gap:8px">' +
    names
      .map(
        (n) =>
          `<img style="width:390px" src="data:image/png;base64,${readFileSync(n).toString('base64')}">`,
      )
      .join('') +
    '</body>',
);
await p.screenshot({ path: process.argv[2]! });
await b.close();
