import { shallowRef } from 'vue';

/** The reader's text size in pixels; 0 before it was looked at. */
const size = shallowRef(0);
/** Asking the browser makes it lay the page out, so it is asked once and tells when the size changes. */
function watched(): number {
  const probe = document.body.appendChild(document.createElement('div'));
  Object.assign(probe.style, { position: 'absolute', width: '1rem', height: '0', visibility: 'hidden' });
  new ResizeObserver(() => (size.value = probe.getBoundingClientRect().width || 16)).observe(probe);
  return probe.getBoundingClientRect().width || 16;
}

/** Pixels at the text size that the reader has set; at the usual size they are as they are. */
export function rem(pixels: number): number {
  size.value ||= watched();
  return (pixels / 16) * size.value;
}
