/** A list as it was when the same things are in it, so that what is made of it is not made anew for nothing. */
export const sameList = <T>(
  now: readonly T[],
  before: readonly T[] | undefined,
  same: (a: T, b: T) => boolean = Object.is,
): readonly T[] => (before?.length === now.length && now.every((item, i) => same(item, before[i]!)) ? before : now);

/** The same for entries of plain facts. */
export const sameItems = <T extends object>(now: readonly T[], before: readonly T[] | undefined): readonly T[] =>
  sameList(now, before, (a, b) => Object.entries(a).every(([key, value]) => value === b[key as keyof T]));
