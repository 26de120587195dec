const ARROWS: Record<string, readonly [x: number, y: number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Where an arrow key points, y down, ten times as far with Shift; null for other keys and with Alt or Ctrl. */
export function arrowOf(event: KeyboardEvent): [x: number, y: number] | null {
  const way = ARROWS[event.key];
  if (!way || event.altKey || event.ctrlKey || event.metaKey) return null;
  const far = event.shiftKey ? 10 : 1;
  return [way[0] * far, way[1] * far];
}
