import type { Directive } from 'vue';

/** Puts the focus into a field as soon as it can be seen, unless somebody has gone to another field of its form by then. */
export const vFirstFocus: Directive<HTMLElement> = {
  mounted(field) {
    const input = field.querySelector('input')!;
    const attempt = () => {
      if (!input.isConnected || input.form?.contains(document.activeElement)) return;
      input.focus();
      // a dialog hides its fields until it has been laid out
      if (document.activeElement !== input) requestAnimationFrame(attempt);
    };
    attempt();
  },
};
