import { computed, ref, type Ref } from 'vue';
import { useElementSize } from '@vueuse/core';
import { followPointer } from '../controls/pointer';
import { intersect, isEmpty, sameRect, type Rect } from '../../core/picture/rect';
import type { ViewFrame } from './frame';

/** Shot pixels by which the part in the window grows at a time, so that a small move needs nothing new. */
const STEP = 64;

/** Stage pixels left free around a fitted picture, both sides together. */
const MARGIN = 16;

/** Where the picture of a shot lies in the stage: fitted, or zoomed and shifted by hand. @param beside true while it has the right half of the stage only */
export function useSight(
  stage: Ref<HTMLElement | undefined>,
  shot: () => { width: number; height: number },
  beside: () => boolean,
) {
  const { width, height } = useElementSize(stage);
  /** where the room for it begins, and how wide that is */
  const left = computed(() => (beside() ? width.value / 2 : 0));
  const wide = computed(() => width.value - left.value);
  /** null = fitted */
  const zoom = ref<number | null>(null);
  const pan = ref({ x: 0, y: 0 });

  const fitted = computed(() =>
    Math.max(0.02, Math.min((wide.value - MARGIN) / shot().width, (height.value - MARGIN) / shot().height)),
  );
  const scale = computed(() => zoom.value ?? fitted.value);
  const frame = computed<ViewFrame>(() => {
    const size = { width: shot().width * scale.value, height: shot().height * scale.value };
    return {
      ...size,
      scale: scale.value,
      x: Math.round(left.value + (wide.value - size.width) / 2 + pan.value.x),
      y: Math.round((height.value - size.height) / 2 + pan.value.y),
    };
  });

  /** What of the shot is in the window, in its pixels, with some room around; null when all of it is. */
  const seen = computed<Rect | null>((old) => {
    const { x, y, scale } = frame.value;
    const whole = { x: 0, y: 0, w: shot().width, h: shot().height };
    const first = (v: number) => Math.floor((v - STEP / 2) / STEP) * STEP;
    const last = (v: number) => Math.ceil((v + STEP / 2) / STEP) * STEP;
    const from = { x: first((left.value - x) / scale), y: first(-y / scale) };
    const around = {
      ...from,
      w: last((width.value - x) / scale) - from.x,
      h: last((height.value - y) / scale) - from.y,
    };
    const part = intersect(around, whole);
    const next = !width.value || isEmpty(part) || sameRect(part, whole) ? null : part;
    // the same part stays the same value, so that nothing looks changed
    return old && next && sameRect(old, next) ? old : next;
  });

  /** @param next null fits @param at the place in the stage that stays where it is; without one, the middle */
  function zoomTo(next: number | null, at = { x: left.value + wide.value / 2, y: height.value / 2 }): void {
    const old = frame.value;
    const inside = { x: (at.x - old.x) / old.scale, y: (at.y - old.y) / old.scale };
    zoom.value = next === null ? null : Math.min(16, Math.max(0.05, next));
    if (next === null) pan.value = { x: 0, y: 0 };
    else {
      pan.value = {
        x: at.x - inside.x * scale.value - left.value - (wide.value - shot().width * scale.value) / 2,
        y: at.y - inside.y * scale.value - (height.value - shot().height * scale.value) / 2,
      };
    }
  }
  /** Shows a spot of the shot in the middle of the stage. */
  function centreOn(spot: { x: number; y: number }, at: number): void {
    zoom.value = at;
    pan.value = { x: (shot().width / 2 - spot.x) * at, y: (shot().height / 2 - spot.y) * at };
  }
  function wheel(event: WheelEvent): void {
    const bounds = stage.value!.getBoundingClientRect();
    if (event.ctrlKey || !event.shiftKey)
      zoomTo(scale.value * 1.2 ** -Math.sign(event.deltaY), {
        x: event.clientX - bounds.left,
        y: event.clientY - bounds.top,
      });
  }
  /** The middle button shifts the picture; another one when it is said so. */
  function dragPan(event: PointerEvent, any = false): void {
    if (event.button !== 1 && !any) return;
    event.preventDefault();
    const start = pan.value;
    zoom.value ??= fitted.value;
    followPointer(
      event,
      (now) => (pan.value = { x: start.x + now.clientX - event.clientX, y: start.y + now.clientY - event.clientY }),
    );
  }
  return { width, height, scale, frame, seen, zoomTo, centreOn, wheel, dragPan };
}
