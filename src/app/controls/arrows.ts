const ARROWS: Record<string, readonly [x: number, y: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where an arrow key points, y down; null for other keys. */
export const arrowWay = (event: KeyboardEvent): readonly [x: number, y: number] | null => ARROWS[event.key] ?? null;

/** The same ten times as far with Shift; null also with Alt or Ctrl. */
export function arrowOf(event: KeyboardEvent): [x: number, y: number] | null {
  const way = arrowWay(event);
  if (!way || event.altKey || event.ctrlKey || event.metaKey) return null;
  const far = event.shiftKey ? 10 : 1;
  return [way[0] * far, way[1] * far];
}
