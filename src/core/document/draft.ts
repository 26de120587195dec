import { current, isDraft, type Draft } from 'immer';

/** A value out of a draft as it is now, so that parts of it can be used in new values. */
export const plain = <T extends object>(value: T): T => (isDraft(value) ? (current(value as Draft<T>) as T) : value);
