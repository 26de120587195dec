import { onBeforeUnmount, onMounted } from 'vue';

/** Events of the bench that are not state: anyone may ask, one component answers. */
const asks = new EventTarget();
type Asked =
  | 'search'
  | 'shortcuts'
  | 'fit'
  | 'zoom-in'
  | 'zoom-out'
  | 'fit-time'
  | 'render'
  | 'new-shot'
  | 'shot-settings'
  | 'looks'
  | 'jigs'
  | 'passes'
  | 'import'
  | 'save-copy'
  | 'look';
export const ask = (what: Asked): boolean => asks.dispatchEvent(new Event(what));
/** Answers while the calling component lives. */
export function useAnswer(what: Asked, answer: () => void): void {
  onMounted(() => asks.addEventListener(what, answer));
  onBeforeUnmount(() => asks.removeEventListener(what, answer));
}
