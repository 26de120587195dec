/** About how many lines fit, at round numbers. @returns their values, rising */
export function roundLines([low, high]: readonly [number, number], most: number): number[] {
  const rough = (high - low) / Math.max(1, most);
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = power * ([1, 2, 5].find((times) => times * power >= rough) ?? 10);
  const first = Math.ceil(low / step);
  return Array.from({ length: Math.max(0, Math.floor(high / step) - first + 1) }, (_, i) => (first + i) * step);
}
