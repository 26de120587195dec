import { defineStore } from 'pinia';
import { useStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { VECTOR_SIDE, type ScopeReading } from '../../core/scopes/read';
import { ScopeReader } from '../../engine/scopes';
import { latestOnly } from '../base/latest';
import { useNotices } from './notices';
import { usePlayer } from './player';

/** The names of scopes by what they answer. */
export const SCOPES = [
  { kind: 'waveform', title: 'How bright where' },
  { kind: 'histogram', title: 'How much of each' },
  { kind: 'vector', title: 'Which colours' },
] as const;
export type ScopeKind = (typeof SCOPES)[number]['kind'];
export type WaveKind = 'luma' | 'parade' | 'overlay';

/** Points of the vector that are worth drawing as a cloud. */
const CLOUD = 220;

/** What scopes read from the frame that is shown, while one of them is open. */
export const useScopes = defineStore('scopes', () => {
  const player = usePlayer();
  const notices = useNotices();
  const open = useStorage('jackplane scopes', false);
  const kind = useStorage<ScopeKind>('jackplane scope', 'waveform');
  const waves = useStorage<WaveKind>('jackplane waves', 'luma');
  /** stripes on the picture where it is clipped */
  const warns = useStorage('jackplane clipping', false);
  const reading = shallowRef<ScopeReading | null>(null);
  const warnings = shallowRef<ImageBitmap | null>(null);
  const reader = new ScopeReader();
  /** how many others look at the cloud of colours */
  const lookers = ref(0);
  const wanted = computed(() => open.value || warns.value || lookers.value > 0);

  const read = latestOnly(
    async () => {
      const bitmap = player.shown?.bitmap;
      if (!wanted.value || !bitmap?.width) return;
      const now = await reader.read(bitmap, warns.value);
      if (!now || !wanted.value) return now?.warnings?.close();
      reading.value = now.reading;
      warnings.value?.close();
      warnings.value = now.warnings;
    },
    (error) => {
      // a frame that was given back meanwhile is followed by another
      if ((error as Error).name !== 'InvalidStateError') notices.problem(error);
    },
  );
  watch(
    [() => player.shown, wanted, warns],
    () => {
      if (wanted.value) return void read();
      reader.rest();
      reading.value = null;
      warnings.value?.close();
      warnings.value = null;
    },
    { immediate: true },
  );

  /** The picture's colours as points of the vector, the commonest ones. */
  const cloud = computed(() => {
    if (!reading.value) return [];
    const { vector, pixels } = reading.value;
    const half = (VECTOR_SIDE - 1) / 2;
    return [...vector]
      .flatMap((count, i) =>
        count
          ? [
              {
                x: ((i % VECTOR_SIDE) - half) / half,
                y: (half - Math.floor(i / VECTOR_SIDE)) / half,
                share: count / pixels,
              },
            ]
          : [],
      )
      .sort((a, b) => b.share - a.share)
      .slice(0, CLOUD);
  });

  return { open, kind, waves, warns, reading, warnings, cloud, lookers };
});
