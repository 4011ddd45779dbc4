/** Any standing charge: served by the shell, so it is not made ahead. */
export const prerender = false;
