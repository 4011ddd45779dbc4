/** Forgets what this device knows once it has been without network for as long as the vendor lets it. */
import { untilForgotten } from '$lib/core/people/forget-after';
import { forgetAll } from '$lib/device/forget';
import type { Stall } from './stall.svelte';

const LOOK_EVERY = 60_000;

export function watchForForgetting(stall: Stall, onForgotten: () => void): void {
  $effect(() => {
    const look = async (): Promise<void> => {
      const [business, standing] = await Promise.all([
        stall.db.books.businesses.get(stall.identity.business),
        stall.db.read('standing'),
      ]);
      const left = untilForgotten(business?.forgetAfter ?? 0, standing?.heardAt, Date.now());
      if (left === null || left > 0) return;
      await stall.daybook.settle();
      await forgetAll(stall.db);
      // What was sent stands there no more than in the database.
      stall.mirror.follow(true);
      // What was typed and not kept goes too.
      sessionStorage.clear();
      onForgotten();
    };
    void look();
    const timer = setInterval(() => void look(), LOOK_EVERY);
    return () => clearInterval(timer);
  });
}
