/** What the browser does before the first page, and with what goes wrong on the way to one. */
import type { ClientInit, HandleClientError } from '@sveltejs/kit';
import { isPartLost } from '$lib/core/daybook/part-lost';
import { PART_LOST } from '$lib/ui/words/fault-words';

export const init: ClientInit = () => {
  // From now on a page says so itself; before, static/lost-parts.js sees to it.
  document.documentElement.dataset.begun = 'yes';
  document.getElementById('on-its-way')?.remove();
};

export const handleError: HandleClientError = ({ error, message }) =>
  isPartLost(error) ? { message: PART_LOST, isPartLost: true } : { message };
