/**
 * Follows a pressed pointer until it is let go or taken away. Listens on the window, because what was pressed may be drawn anew meanwhile.
 * @param done told whether the pointer moved
 */
export function followPointer(
  event: PointerEvent,
  move: (now: PointerEvent) => void,
  done: (moved: boolean) => void = () => undefined,
): void {
  let moved = false;
  const own = (now: PointerEvent) => now.pointerId === event.pointerId;
  const follow = (now: PointerEvent) => {
    if (!own(now)) return;
    moved ||= Math.hypot(now.clientX - event.clientX, now.clientY - event.clientY) > 2;
    if (moved) move(now);
  };
  const end = (now: PointerEvent) => {
    if (!own(now)) return;
    removeEventListener('pointermove', follow);
    removeEventListener('pointerup', end);
    removeEventListener('pointercancel', end);
    done(moved);
  };
  addEventListener('pointermove', follow);
  addEventListener('pointerup', end);
  addEventListener('pointercancel', end);
}
