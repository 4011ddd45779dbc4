/**
 * The first circle of what needs one another.
 * @param {ReadonlyMap<string, readonly string[]>} needs What each needs.
 * @returns {readonly string[]} Each needs the next, and the last the first; empty if there is none.
 */
export function circleIn(needs) {
  /** @type {Set<string>} */
  const clear = new Set();
  /** @type {string[]} */
  const path = [];
  /** @param {string} one @returns {readonly string[]} */
  const from = (one) => {
    if (clear.has(one)) return [];
    const at = path.indexOf(one);
    if (at >= 0) return path.slice(at);
    path.push(one);
    for (const next of needs.get(one) ?? []) {
      const circle = from(next);
      if (circle.length > 0) return circle;
    }
    path.pop();
    clear.add(one);
    return [];
  };
  for (const one of needs.keys()) {
    const circle = from(one);
    if (circle.length > 0) return circle;
  }
  return [];
}
