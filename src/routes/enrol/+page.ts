export const ssr = false;
export const prerender = true;
