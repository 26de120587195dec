/** Whether two plain values hold the same. A property that is undefined counts as not there. */
export function same(a: unknown, b: unknown): boolean {
  if (Object.is(a, b) || (a === 0 && b === 0)) return true;
  if (
    typeof a !== 'object' ||
    typeof b !== 'object' ||
    a === null ||
    b === null ||
    Array.isArray(a) !== Array.isArray(b)
  )
    return false;
  if (Array.isArray(a))
    return a.length === (b as unknown[]).length && a.every((item, i) => same(item, (b as unknown[])[i]));
  const names = new Set([...Object.keys(a), ...Object.keys(b)]);
  return [...names].every((name) => same((a as Record<string, unknown>)[name], (b as Record<string, unknown>)[name]));
}
