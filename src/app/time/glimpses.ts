import { onBeforeUnmount, reactive } from 'vue';
import type { FramePlan } from '../../core/plan/types';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import { useNotices } from '../stores/notices';

interface Wanted {
  key: string;
  /** made when its turn comes */
  plan(): FramePlan;
}

/** Small pictures of several things, made one after the other while the calling component lives. */
export function useGlimpses() {
  const notices = useNotices();
  /** object URLs by key */
  const pictures = reactive<Record<string, string>>({});
  let run = 0;

  function forget(key: string): void {
    if (pictures[key]) URL.revokeObjectURL(pictures[key]);
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
    const canvas = new OffscreenCanvas(1, 1);
    for (const { key, plan } of wanted) {
      if (pictures[key] && !anew.has(key)) continue;
      try {
        const { bitmap } = await engine.frame(plan(), 'picture', LOOK);
        if (mine !== run || !bitmap.width) return;
        canvas.width = bitmap.width;
        canvas.height = bitmap.height;
        canvas.getContext('2d')!.drawImage(bitmap, 0, 0);
        const url = URL.createObjectURL(await canvas.convertToBlob({ type: 'image/webp', quality: 0.9 }));
        if (mine !== run) return URL.revokeObjectURL(url);
        forget(key);
        pictures[key] = url;
      } catch (error) {
        return notices.problem(error);
      }
    }
  }
  onBeforeUnmount(clear);
  return { pictures, draw, clear };
}
