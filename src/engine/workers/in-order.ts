/** Makes work wait its turn: calls run one after the other, in the order in which they came, whether those before failed or not. */
export function inOrder<A extends unknown[], R>(work: (...args: A) => Promise<R>): (...args: A) => Promise<R> {
  let last: Promise<unknown> = Promise.resolve();
  return (...args) => {
    const next = last.then(() => work(...args));
    last = next.catch(() => undefined);
    return next;
  };
}
