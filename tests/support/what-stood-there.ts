/**
 * Prints what stood on the pages where a test failed, last of all: whoever reads the log has nothing else of the machine
 * it ran on, and often no more than its end.
 */
import { existsSync, readFileSync } from 'node:fs';
import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter';

const LINES = 120;
/** What the file that the runner writes has of a page, as outlines of what assistive technology is told. */
const SNAPSHOT = /```yaml\n([\s\S]*?)```/g;

export default class WhatStoodThere implements Reporter {
  readonly #stood: string[] = [];

  onTestEnd(test: TestCase, { status, attachments }: TestResult): void {
    if (status === test.expectedStatus || status === 'skipped') return;
    const files = attachments.flatMap(({ name, path }) =>
      name === 'error-context' && path !== undefined && existsSync(path) ? [path] : [],
    );
    for (const file of new Set(files))
      for (const [, page = ''] of readFileSync(file, 'utf8').matchAll(SNAPSHOT))
        this.#stood.push(
          [`\nWhat stood there: ${test.title}`, ...page.split('\n').slice(0, LINES)].join('\n'),
        );
  }

  onEnd(): void {
    for (const page of this.#stood) console.log(page);
  }

  printsToStdio(): boolean {
    return false;
  }
}
