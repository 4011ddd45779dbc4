/** A browser as its owner would know it. @param agent What it calls itself; anything at all. */
export function agentWords(agent: string): string {
  const browsers = [
    [/Edg\//, 'Edge'],
    [/Firefox\//, 'Firefox'],
    [/Chrom(e|ium)\//, 'Chrome'],
    [/Safari\//, 'Safari'],
  ] as const;
  const systems = [
    [/Android/, 'Android'],
    [/iPhone|iPad/, 'iOS'],
    [/Windows/, 'Windows'],
    [/Mac OS/, 'a Mac'],
    [/Linux/, 'Linux'],
  ] as const;
  const named = (list: readonly (readonly [RegExp, string])[]): string | undefined =>
    list.find(([pattern]) => pattern.test(agent))?.[1];
  const browser = named(browsers) ?? 'A browser';
  const system = named(systems);
  return system === undefined ? browser : `${browser} on ${system}`;
}
