/** Screens of the stall are shells that read the device's own rows; they need no server. */
export const ssr = false;
export const prerender = true;
