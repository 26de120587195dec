/** A list's entries as they were when nothing in them is different, so that a list is not made anew for nothing. */
export function sameItems<T extends object>(now: readonly T[], before: readonly T[] | undefined): readonly T[] {
  const same = (a: T, b: T) => Object.entries(a).every(([key, value]) => value === b[key as keyof T]);
  return before?.length === now.length && now.every((item, i) => same(item, before[i]!)) ? before : now;
}
