import type { InjectionKey } from 'vue';
import type { Param } from '../../core/params/registry';

/** The values beside a dial's own, for dials that show several. */
export interface Siblings {
  params: Readonly<Record<string, Param>>;
  now(name: string): unknown;
  change(name: string, value: unknown, dragging: boolean): void;
  end(): void;
}
export const SIBLINGS: InjectionKey<Siblings> = Symbol('siblings');
