/** How much of a machine the engine may take. */
export interface Budget {
  /** bytes of finished frames */
  cache: number;
  /** bytes of each render worker's memory */
  arena: number;
  /** bytes of decoded frames in the decoder */
  decoded: number;
  workers: number;
}

const MOST_WORKERS = 4;

/** @param memory gigabytes, as browsers say it: rounded, 8 at the most @param cores processors */
export function budgetFor(memory = 4, cores = 2): Budget {
  const gigabytes = Math.min(8, Math.max(0.5, memory));
  const workers = Math.max(1, Math.min(MOST_WORKERS, cores, Math.floor(gigabytes)));
  return {
    cache: gigabytes * 128e6,
    arena: Math.min(768e6, (gigabytes * 256e6) / workers + 128e6),
    decoded: gigabytes * 32e6,
    workers,
  };
}
