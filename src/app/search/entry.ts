import type { Tried } from '../stores/edits';

/** Something that the search can find and do. */
export interface Entry {
  /** what it is, in a word or two */
  kind: string;
  title: string;
  /** what it does, or where it is */
  more: string;
  /** other names and wishes that it answers */
  words: string;
  /** what is tried on the picture while it is highlighted */
  tries?: Tried;
  run(): void;
}
