/** What the build tells the service worker. */
export const build: readonly string[];
export const files: readonly string[];
export const prerendered: readonly string[];
export const version: string;
