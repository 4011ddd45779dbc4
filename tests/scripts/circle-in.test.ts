/** What needs one another is found, wherever one begins to look. */
import assert from 'node:assert/strict';
import { test } from 'node:test';
import { circleIn } from '../../scripts/setup/circle-in.mjs';

const needs = (all: Readonly<Record<string, readonly string[]>>): Map<string, readonly string[]> =>
  new Map(Object.entries(all));

test('what is needed twice is no circle, nor is what is not there', () => {
  assert.deepEqual(circleIn(needs({ a: ['b', 'c'], b: ['d'], c: ['d', 'gone'], d: [] })), []);
});

test('a circle is told without what leads to it', () => {
  assert.deepEqual(circleIn(needs({ a: ['b'], b: ['c', 'd'], c: [], d: ['e'], e: ['b'] })), [
    'b',
    'd',
    'e',
  ]);
});

test('what needs itself is one', () => {
  assert.deepEqual(circleIn(needs({ a: [], b: ['b'] })), ['b']);
});
