import type { Component } from 'vue';
import type { Param } from '../../core/params/registry';

/** What every dial gets: the parameter, its value at the playhead, and the path of the animatable value behind it. */
export interface DialProps<P = Param, V = unknown> {
  name: string;
  param: P;
  value: V;
  path: string;
  disabled: boolean;
}
/** What it tells: a new value (and whether more of the same gesture will follow), and the end of a gesture. */
export interface DialEmits<V = unknown> {
  change: [value: V, dragging?: boolean];
  end: [];
}

const files = import.meta.glob<{ default: Component }>('./*.vue', { eager: true });
/** The dial of each kind of parameter is the file of that name. A kind without one is set elsewhere. */
export const dialOf = (kind: string): Component | undefined => files[`./${kind}.vue`]?.default;
