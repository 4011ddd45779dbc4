/** What axe leaves open: contrast worked out from the colours as painted, and sizes for fingers. */
import axe from 'axe-core';
import type { Page } from '@playwright/test';

const TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** What axe finds wrong, but for contrast, which `lowContrast` looks at more closely and in a fraction of the time. */
export async function violations(page: Page): Promise<string[]> {
  // It stays in the page until that is loaded anew.
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source);
  return await page.evaluate(async (tags) => {
    const found = await (window as unknown as { axe: typeof axe }).axe.run(document, {
      runOnly: tags,
      rules: { 'color-contrast': { enabled: false } },
      resultTypes: ['violations'],
    });
    return found.violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html ?? ''}`);
  }, TAGS);
}

/**
 * Texts whose contrast is below `least` (WCAG 2.2, 1.4.3 and 1.4.6), with the ratio. Large text may
 * have 3 where 4.5 is asked for, and 4.5 where 7 is. Backgrounds are composed from the ancestors' colours.
 */
export async function lowContrast(page: Page, least: number): Promise<string[]> {
  return await page.evaluate((wanted) => {
    type Colour = [number, number, number, number];
    const canvas = document.createElement('canvas');
    canvas.width = canvas.height = 1;
    const paint = canvas.getContext('2d', { willReadFrequently: true })!;
    const known = new Map<string, Colour>();
    const read = (colour: string): Colour => {
      const painted = known.get(colour) ?? asPainted(colour);
      known.set(colour, painted);
      return painted;
    };
    const asPainted = (colour: string): Colour => {
      paint.clearRect(0, 0, 1, 1);
      paint.fillStyle = colour;
      paint.fillRect(0, 0, 1, 1);
      const [r = 0, g = 0, b = 0, a = 0] = paint.getImageData(0, 0, 1, 1).data;
      return [r, g, b, a / 255];
    };
    const over = (top: Colour, below: Colour): Colour => {
      const mix = (i: 0 | 1 | 2): number => top[i] * top[3] + below[i] * (1 - top[3]);
      return [mix(0), mix(1), mix(2), 1];
    };
    const light = ([r, g, b]: Colour): number => {
      const part = (v: number): number => {
        const s = v / 255;
        return s <= 0.03928 ? s / 12.92 : ((s + 0.055) / 1.055) ** 2.4;
      };
      return 0.2126 * part(r) + 0.7152 * part(g) + 0.0722 * part(b);
    };
    const ratio = (a: Colour, b: Colour): number => {
      const [hi, lo] = [light(a), light(b)].sort((x, y) => y - x) as [number, number];
      return (hi + 0.05) / (lo + 0.05);
    };
    const grounds = new Map<Element | null, Colour>([[null, [255, 255, 255, 1]]]);
    const backgroundOf = (element: Element | null): Colour => {
      const found = grounds.get(element);
      if (found !== undefined || element === null) return found ?? [255, 255, 255, 1];
      const own = read(getComputedStyle(element).backgroundColor);
      const ground = own[3] === 1 ? own : over(own, backgroundOf(element.parentElement));
      grounds.set(element, ground);
      return ground;
    };
    const found = new Set<string>();
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    while (walk.nextNode() !== null) {
      const text = walk.currentNode.textContent?.trim() ?? '';
      const element = walk.currentNode.parentElement;
      if (text === '' || element === null || !element.checkVisibility({ visibilityProperty: true }))
        continue;
      if (element.closest('.sr-only, script, style, [aria-hidden=true]') !== null) continue;
      const style = getComputedStyle(element);
      const background = backgroundOf(element);
      const size = Number.parseFloat(style.fontSize);
      const isLarge = size >= 24 || (size >= 18.66 && Number(style.fontWeight) >= 600);
      const enough = isLarge ? (wanted > 4.5 ? 4.5 : 3) : wanted;
      const is = ratio(over(read(style.color), background), background);
      if (is < enough) found.add(`${text.slice(0, 30)}: ${is.toFixed(2)}`);
    }
    return [...found];
  }, least);
}

/** What does not fit into where it stands, on a page that is as wide as it is: buttons and links that cut their words off. */
export async function cutOff(page: Page): Promise<string[]> {
  return await page.evaluate(() => {
    const cut: string[] = [];
    for (const element of document.querySelectorAll('button, a[href], td, th')) {
      if (!element.checkVisibility({ visibilityProperty: true })) continue;
      // Words in a line have no box of their own; what scrolls can be scrolled to.
      const { display, overflowX, overflowY } = getComputedStyle(element);
      if (display === 'inline' || [overflowX, overflowY].some((way) => /auto|scroll/.test(way)))
        continue;
      const { scrollHeight, clientHeight, scrollWidth, clientWidth } = element;
      if (scrollHeight > clientHeight + 1 || scrollWidth > clientWidth + 1)
        cut.push(
          `${(element.textContent ?? '').trim().slice(0, 40)}: ${String(scrollWidth)} × ${String(scrollHeight)} in ${String(clientWidth)} × ${String(clientHeight)}`,
        );
    }
    const { scrollWidth, clientWidth } = document.documentElement;
    if (scrollWidth > clientWidth)
      cut.push(`the page: ${String(scrollWidth)} in ${String(clientWidth)}`);
    return cut;
  });
}

/** Things to press that are smaller than 48 px either way; links within text are let be. */
export async function smallTargets(page: Page): Promise<string[]> {
  return await page.evaluate(() => {
    const small: string[] = [];
    for (const element of document.querySelectorAll('button, a[href], input, select, summary')) {
      if (
        !element.checkVisibility({ visibilityProperty: true }) ||
        element.matches('a.plain, summary')
      )
        continue;
      // A finger may as well hit the words beside a tick.
      const target = element.matches('[type=checkbox]')
        ? (element.closest('label') ?? element)
        : element;
      const { width, height } = target.getBoundingClientRect();
      if (element.matches('.sign') ? height < 40 : height < 47.5 || width < 44) {
        const name = element.getAttribute('aria-label') ?? element.textContent?.trim() ?? '';
        small.push(`${name.slice(0, 30)}: ${width.toFixed(0)} × ${height.toFixed(0)}`);
      }
    }
    return small;
  });
}
