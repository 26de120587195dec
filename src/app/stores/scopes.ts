import { defineStore } from 'pinia';
import { StorageSerializers, useStorage } from '@vueuse/core';
import { computed, ref, shallowRef, watch } from 'vue';
import { LIMITS, VECTOR_SIDE, type LimitName, type ScopeQuestion, type ScopeReading } from '../../core/scopes/read';
import type { MaskId } from '../../core/document/mask';
import { newPass } from '../../core/document/edits/passes';
import type { Pass, PassId } from '../../core/document/schema';
import type { Rect } from '../../core/picture/rect';
import { planAlone } from '../../core/plan/looks';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import { ScopeReader } from '../../engine/scopes';
import { latestOnly } from '../base/latest';
import { useNotices } from './notices';
import { useBench } from './bench';
import { usePreview } from './preview';
import { useShown } from './shown';
import { useProject } from './project';

/** The names of scopes by what they answer. */
export const SCOPES = [
  { kind: 'waveform', title: 'How bright where' },
  { kind: 'histogram', title: 'How much of each' },
  { kind: 'vector', title: 'Which colours' },
] as const;
export type ScopeKind = (typeof SCOPES)[number]['kind'];
export type WaveKind = 'luma' | 'parade' | 'overlay';

export type ScopedThing = 'picture' | 'part' | 'layer' | MaskId;

/** A pass that leaves only what one mask covers. */
const limit = (mask: MaskId): Pass => newPass('scoped' as PassId, 'mask', null, { masks: [mask] });

/** Points of the vector that are worth drawing as a cloud. */
const CLOUD = 220;

/** What scopes read from the frame that is shown, while one of them is open. */
export const useScopes = defineStore('scopes', () => {
  const bench = useBench();
  const store = useProject();
  const preview = usePreview();
  const shown = useShown();
  const notices = useNotices();
  const open = useStorage('jackplane scopes', false);
  const kind = useStorage<ScopeKind>('jackplane scope', 'waveform');
  const waves = useStorage<WaveKind>('jackplane waves', 'luma');
  /** beyond which limits the picture is striped */
  const kept = useStorage<string>('jackplane stripes', 'none');
  const stripes = computed<LimitName | 'none'>({
    get: () => (kept.value in LIMITS ? (kept.value as LimitName) : 'none'),
    set: (value) => (kept.value = value),
  });
  const reading = shallowRef<ScopeReading | null>(null);
  const warnings = shallowRef<ImageBitmap | null>(null);
  const reader = new ScopeReader();
  /** a colour that others are compared with, display-encoded 0…1 */
  const pinned = useStorage<readonly [number, number, number] | null>('jackplane pinned colour', null, undefined, {
    serializer: StorageSerializers.object,
  });
  /** how many others look at the cloud of colours */
  const lookers = ref(0);
  const wanted = computed(() => open.value || stripes.value !== 'none' || lookers.value > 0);

  /** what they look at: the picture, a part of it, the chosen layer, or that inside one of its masks */
  const of = ref<ScopedThing>('picture');
  const things = computed(() => [
    { value: 'picture', title: 'the whole picture' },
    { value: 'part', title: 'a part of the picture' },
    ...(bench.size ? [{ value: 'layer', title: `${bench.layer!.name} alone` }] : []),
    ...(bench.size ? bench.layer!.masks : []).map((mask) => ({ value: mask.id, title: `inside ${mask.name}` })),
  ]);
  watch(things, (list) => {
    if (!list.some(({ value }) => value === of.value)) of.value = 'picture';
  });
  /** the part, in pixels of the shot */
  const part = ref<Rect>({ x: 0, y: 0, w: 0, h: 0 });
  watch([of, () => bench.shot?.id], () => {
    const { shot } = bench;
    if (!shot || of.value !== 'part') return;
    const { x, y, w, h } = part.value;
    if (w > 0 && x + w <= shot.width && y + h <= shot.height) return;
    const [wide, tall] = [Math.round(shot.width / 8), Math.round(shot.height / 8)];
    part.value = { x: Math.round((shot.width - wide) / 2), y: Math.round((shot.height - tall) / 2), w: wide, h: tall };
  });

  /** What is to be looked at, and what of it. */
  async function looked(): Promise<{ bitmap: ImageBitmap; question: ScopeQuestion } | null> {
    const { picture } = shown;
    if (!picture) return null;
    const asked = stripes.value === 'none' ? {} : { warn: true, limits: stripes.value };
    if (of.value === 'picture') return { bitmap: picture.bitmap, question: asked };
    if (of.value === 'part') {
      const by = 1 / preview.reduction;
      const { x, y, w, h } = part.value;
      const [left, top] = [picture.part?.x ?? 0, picture.part?.y ?? 0];
      return {
        bitmap: picture.bitmap,
        question: { ...asked, part: { x: x * by - left, y: y * by - top, w: w * by, h: h * by } },
      };
    }
    const { shot, layer } = bench;
    if (!shot || !layer) return null;
    const limits = of.value === 'layer' ? [] : [limit(of.value)];
    const plan = planAlone(store.current(), shot, layer, shown.frame, preview.reduction, [...layer.passes, ...limits]);
    return {
      bitmap: (await (await useEngine()).frame(plan, 'picture', LOOK)).bitmap,
      question: { ...asked, solid: true },
    };
  }

  const read = latestOnly(
    async () => {
      if (!wanted.value) return;
      const now = await looked().then((what) => (what?.bitmap.width ? reader.read(what.bitmap, what.question) : null));
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
    [() => shown.picture, wanted, stripes, of, part, () => bench.layerId],
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

  return { of, things, part, pinned, open, kind, waves, stripes, reading, warnings, cloud, lookers };
});
