/** Follows a pressed pointer until it is let go or taken away. */
export function followPointer(event: PointerEvent, move: (now: PointerEvent) => void, done: () => void = () => undefined): void {
  const target = event.currentTarget as HTMLElement;
  target.setPointerCapture(event.pointerId);
  target.addEventListener('pointermove', move);
  target.addEventListener(
    'lostpointercapture',
    () => {
      target.removeEventListener('pointermove', move);
      done();
    },
    { once: true },
  );
}
