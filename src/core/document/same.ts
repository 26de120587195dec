/** Whether two plain values hold the same. A property that is undefined counts as not there. */
export const same = (a: unknown, b: unknown): boolean => alike(a, b, false);

/** Whether what is there now is what was written down once: among declared values there may be some that came later. */
export const fits = (now: unknown, written: unknown): boolean => alike(now, written, true);

/** @param later whether `a` may have more among `values` than `b` */
function alike(a: unknown, b: unknown, later: boolean, values = false): boolean {
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
    return a.length === (b as unknown[]).length && a.every((item, i) => alike(item, (b as unknown[])[i], later));
  const names = new Set([...(later && values ? [] : Object.keys(a)), ...Object.keys(b)]);
  return [...names].every((name) =>
    alike((a as Record<string, unknown>)[name], (b as Record<string, unknown>)[name], later, name === 'values'),
  );
}
