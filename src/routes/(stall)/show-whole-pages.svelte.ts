/**
 * Shows a page once it has read what it follows: what came piece by piece would slide away from under a finger. What
 * takes longer than two seconds and a half is shown as far as it has come.
 */
import { tick, untrack } from 'svelte';
import { afterNavigate, onNavigate } from '$app/navigation';
import { readings } from '$lib/device/readings';
import type { Stall } from './stall.svelte';

/** Milliseconds. */
const LONGEST = 2500;

export interface WholePage {
  readonly isShown: boolean;
}

/** Called while the frame of all pages is made. */
export function showWholePages(stall: Stall): WholePage {
  let isShown = $state(false);
  let pages = 0;
  function hide(): number {
    const mine = ++pages;
    isShown = false;
    setTimeout(() => show(mine), LONGEST);
    return mine;
  }
  function show(which: number): void {
    if (which === pages) isShown = true;
  }
  async function showWhole(): Promise<void> {
    const mine = hide();
    await readings.allRead(tick);
    show(mine);
  }
  $effect(() => {
    if (stall.isReady && !stall.isLocked) untrack(() => void showWhole());
  });
  // Before the next page is there, and once it is; what is typed into one only changes what it is asked.
  onNavigate(({ from, to }) => {
    if (from?.url.pathname !== to?.url.pathname) hide();
  });
  afterNavigate(() => {
    if (!isShown) void showWhole();
  });
  return {
    get isShown() {
      return isShown;
    },
  };
}
