/** Screens of the owner's account need the network, but no event, no drawer, no PIN. */
export const ssr = false;
export const prerender = true;
