import { JackplaneError } from '../core/base/errors';

/** Longest that a file may keep a decoder busy without getting any further, in milliseconds. */
export const PATIENCE = 20_000;

/** Answers of work that has to get on: every `alive` starts the time anew. Rejects once nothing has happened for `patience`. */
export function withPatience<T>(
  work: (alive: () => void) => Promise<T>,
  patience: number,
  late: () => Error,
): Promise<T> {
  return new Promise((done, fail) => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    const alive = () => {
      clearTimeout(timer);
      timer = setTimeout(() => fail(late()), patience);
    };
    alive();
    void work(alive)
      .then(done, fail)
      .finally(() => clearTimeout(timer));
  });
}

export const tooLong = (name: string): JackplaneError =>
  new JackplaneError(
    'bad-media',
    `“${name}” kept the decoder busy for ${PATIENCE / 1000} seconds without a result, so it was given up.`,
    'It may be damaged: convert it to MP4 or WebM with another program, and import that.',
  );
