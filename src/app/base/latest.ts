/**
 * Work of which only the latest wish matters: what is wished for while it runs is done once more afterwards, however often it was wished for.
 * @param failed is told what went wrong; later wishes are still done
 */
export function latestOnly(work: () => Promise<void>, failed: (error: unknown) => void): () => Promise<void> {
  let wished = 0;
  let working = false;
  return async () => {
    wished++;
    if (working) return;
    working = true;
    for (let done = 0; done !== wished;) {
      done = wished;
      await work().catch(failed);
    }
    working = false;
  };
}
