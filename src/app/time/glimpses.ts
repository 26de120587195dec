import { onBeforeUnmount, shallowReactive } from 'vue';
import type { FramePlan } from '../../core/plan/types';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import { useNotices } from '../stores/notices';
import { useReady } from '../stores/ready';

interface Wanted {
  key: string;
  /** made when its turn comes */
  plan(): FramePlan;
}

/** No picture is wider than this, in pixels. */
const WIDEST = 800;

/** Lets the page have its turn: pictures that are ready already come all at once. */
const breathe = (): Promise<void> => new Promise((resume) => setTimeout(resume));

/** Small pictures of several things, made one after the other while the calling component lives. */
export function useGlimpses() {
  const notices = useNotices();
  const ready = useReady();
  /** by key */
  const pictures = shallowReactive<Record<string, OffscreenCanvas>>({});
  let run = 0;

  function forget(key: string): void {
    // gives its memory back at once
    if (pictures[key]) pictures[key].width = 0;
    delete pictures[key];
  }
  function clear(): void {
    run++;
    Object.keys(pictures).forEach(forget);
  }
  /** Makes those that are not there yet. @param anew these too, although they are */
  async function draw(wanted: readonly Wanted[], anew: ReadonlySet<string> = new Set()): Promise<void> {
    const mine = ++run;
    const engine = await useEngine();
    const missing = wanted.filter(({ key }) => !pictures[key] || anew.has(key));
    const ask = (at: number) => {
      // frames ahead wait until these are there
      ready.yieldToHand();
      const asked = missing[at] && engine.frame(missing[at].plan(), 'picture', LOOK);
      asked?.catch(() => {});
      return asked;
    };
    try {
      let coming = ask(0);
      for (const [at, { key }] of missing.entries()) {
        const { bitmap } = await coming!;
        if (mine !== run) return;
        // the next one is computed while this one is drawn
        coming = ask(at + 1);
        await breathe();
        if (mine !== run || !bitmap.width) return;
        const small = Math.min(1, WIDEST / bitmap.width);
        // what the engine gives may be thrown away by it
        const own = new OffscreenCanvas(Math.ceil(bitmap.width * small), Math.ceil(bitmap.height * small));
        own.getContext('2d')!.drawImage(bitmap, 0, 0, own.width, own.height);
        forget(key);
        pictures[key] = own;
      }
    } catch (error) {
      notices.problem(error);
    }
  }
  onBeforeUnmount(clear);
  return { pictures, draw, clear };
}
