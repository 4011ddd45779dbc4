import assert from 'node:assert/strict';
import { describe, it } from 'node:test';
import { beginsWords, hasWords, wordsIn } from './words';

const finds = (typed: string, ...parts: string[]): boolean => hasWords(parts, wordsIn(typed));

describe('what is typed to find something', () => {
  it('needs every word, anywhere, in any order', () => {
    assert.ok(finds('aster, pot', 'Aster', '9 cm pot'));
    assert.ok(finds('pot ast', 'Aster', '9 cm pot'));
    assert.ok(!finds('aster tray', 'Aster', '9 cm pot'));
    assert.ok(finds('  ', 'Aster'));
  });

  it('makes nothing of capitals and accents, on either side', () => {
    assert.ok(finds('creme brulee', 'Crème brûlée'));
    assert.ok(finds('CRÈME', 'creme'));
    assert.ok(finds('zoe', 'Zoë Ångström') && finds('angstrom', 'Zoë Ångström'));
    // Composed and not: the same letter.
    assert.ok(finds('caf\u00e9', 'cafe\u0301'));
  });

  it('can be asked for at the beginning of words', () => {
    assert.ok(beginsWords('Europe/London', wordsIn('lon')));
    assert.ok(!beginsWords('America/Blanc-Sablon', wordsIn('lon')));
    assert.ok(beginsWords('Éire and Lon', wordsIn('lon eir')));
  });
});
