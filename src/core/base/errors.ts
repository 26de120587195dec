export type ErrorCode =
  | 'bad-media'
  | 'bad-project'
  | 'bad-value'
  | 'cancelled'
  | 'conflict'
  | 'loop'
  | 'memory'
  | 'missing-media'
  | 'not-found'
  | 'storage'
  | 'unsupported';

/** The one error a person may see: what happened, to what, and what to do about it. */
export class JackplaneError extends Error {
  override readonly name = 'JackplaneError';

  /**
   * @param code what kind of trouble, for programs
   * @param sentence what happened, naming the file or layer
   * @param remedy what the person can do
   */
  constructor(
    readonly code: ErrorCode,
    readonly sentence: string,
    readonly remedy: string,
  ) {
    super(`${sentence} ${remedy}`);
  }
}

/** The sentence to show for anything that was thrown. Words of libraries and browsers are not for the screen. */
export const sentenceOf = (error: unknown): string =>
  error instanceof JackplaneError
    ? error.message.trim()
    : 'An error that Jackplane does not know stopped this. What was kept is kept; reload the page and try again.';
