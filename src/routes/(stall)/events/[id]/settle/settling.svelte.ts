/** What an event comes to, as the server works it out: asked again whenever something was sent or came in. */
import { wayNameOf } from '$lib/ui/words/way-words';
import { getContext, setContext } from 'svelte';
import { z } from 'zod';
import { settlingSchema, type Settling } from '$lib/core/settle/settling';
import { itemName } from '$lib/core/goods/item-name';
import { NOBODY } from '$lib/core/books/names';
import { live } from '$lib/device/live.svelte';
import { wrongOf } from '$lib/ui/words/answer-words';
import { timeWords, shortDayWords } from '$lib/ui/words/date-words';
import type { SettleNames } from '$lib/ui/words/settle-words';
import { Asked } from '../../../asked.svelte';
import type { Stall } from '../../../stall.svelte';

const answer = z.object({ settling: settlingSchema });

const KEY = Symbol('settling');

export class AskedSettling extends Asked {
  now = $state.raw<Settling | null>(null);
  /** Why there is none, or none that is new. */
  says = $state('');
  readonly #event: () => string;

  /** To be made while the page is; its parts find it with `useSettling`. */
  constructor(stall: Stall, event: () => string) {
    super(stall, () => void event());
    this.#event = event;
    setContext(KEY, this);
  }

  async ask(): Promise<void> {
    const id = this.#event();
    const at = this.askedAt();
    const asked = await this.stall.transport.ask(`/api/events/${id}/settling`, answer);
    if (id !== this.#event()) return;
    if (asked.came === 'answer') {
      this.now = asked.answer.settling;
      this.says = '';
      this.heard(at);
    } else
      this.says = wrongOf(
        asked,
        'No network now: settling needs what all devices have sent. Come back with network.',
      );
  }
}

export const useSettling = (): AskedSettling => getContext<AskedSettling>(KEY);

/** Names of what is settled, as this device knows them. */
export function settleNames(stall: Stall, timeZone: () => string): SettleNames {
  const { books } = stall.db;
  const items = live(
    () => async () => new Map((await books.items.toArray()).map((item) => [item.id, item])),
    new Map(),
  );
  const makers = live(() => () => books.makers.toArray(), []);
  return {
    get money() {
      return stall.money;
    },
    item: (id) => {
      const item = items.value.get(id);
      return item === undefined ? 'goods' : itemName(item);
    },
    unit: (id) => items.value.get(id)?.unit ?? '',
    person: (id) => (id === NOBODY ? 'nobody signed in' : stall.nameOf(id)),
    maker: (id) => makers.value.find((maker) => maker.id === id)?.name ?? 'a maker',
    makerEmail: (id) => makers.value.find((maker) => maker.id === id)?.email ?? '',
    way: (id) => wayNameOf(id, stall.wayRows),
    moment: (at) =>
      `${shortDayWords(at.slice(0, 10), stall.business.locale)} ${timeWords(at, stall.business.locale, timeZone())}`,
  };
}
