<script setup lang="ts">
import { computed, ref } from 'vue';
import { setPassValue, setPassValues } from '../../core/document/edits/passes';
import type { Value } from '../../core/base/value';
import type { Colour } from '../../core/params/define';
import { placeOn, withPointAt, type CurveParam, type CurvePoint } from '../../core/params/curve';
import type { SamplesParam } from '../../core/params/samples';
import { paramsOf } from '../../core/passes/registry';
import { screenOf } from '../../core/analysis/screen-likeness';
import { project } from '../../core/picture/matrix';
import { planBefore } from '../../core/plan/looks';
import { intoPicture } from '../../core/plan/placing';
import { valueAt } from '../../core/time/values';
import { useEngine } from '../../engine/client';
import { readInto } from '../stores/read-plate';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useNotices } from '../stores/notices';
import { useProject } from '../stores/project';
import { HANDLE, type ViewFrame } from './frame';
import { colourWithout } from './shot-colour';

/** Picks the screen on the picture: click, drag to average an area, Shift to add a sample. */
const props = defineProps<{ frame: ViewFrame }>();
const bench = useBench();
const playhead = usePlayhead();
const edits = useEdits();
const store = useProject();
const notices = useNotices();
const from = ref<{ x: number; y: number } | null>(null);
const to = ref({ x: 0, y: 0 });
/** A click averages this many pixels each way, so that noise does not decide. */
const CLICK = 5;
/** Below this share of colour difference a pick is grey rather than a screen. */
const LEAST = 0.03;
/** Below this share of the picture a hue is hardly a screen's. */
const RARE = 0.04;
/** And below this share of its border: a screen reaches out of the picture on most sides. */
const RARE_AT_RIM = 0.2;

const picksScreen = computed(() => bench.picking === 'screen');
const area = computed(
  () =>
    from.value && {
      x: Math.min(from.value.x, to.value.x),
      y: Math.min(from.value.y, to.value.y),
      w: Math.abs(to.value.x - from.value.x),
      h: Math.abs(to.value.y - from.value.y),
    },
);

function place(event: PointerEvent): { x: number; y: number } {
  const bounds = (event.currentTarget as HTMLElement).getBoundingClientRect();
  return { x: event.clientX - bounds.left, y: event.clientY - bounds.top };
}
function down(event: PointerEvent): void {
  if (event.button !== 0) return;
  (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
  from.value = to.value = place(event);
}
function move(event: PointerEvent): void {
  if (from.value) to.value = place(event);
}
async function up(event: PointerEvent): Promise<void> {
  const picked = area.value;
  from.value = null;
  if (!picked) return;
  try {
    const colour = await colourOf(picked);
    if (colour) keep(colour, event.shiftKey);
  } catch (error) {
    notices.problem(error);
  }
}

/** What is picked for: the screen of a key, or a colour from the shot below the layer. */
const picked = computed(() => paramsOf(bench.pass!.type)[bench.picking!] as SamplesParam | CurveParam);
/** The same as a list of colours; a curve has none of what only those have. */
const param = computed(() => picked.value as SamplesParam);

/** Mean colour of a part of the stage in what comes into the pass, or in the shot without the layer. */
async function colourOf(part: { x: number; y: number; w: number; h: number }): Promise<Colour | null> {
  const { shot, layer, pass } = bench;
  if (!shot || !layer || !pass || !store.project) return null;
  const { frame } = props;
  const inShot = {
    x: (part.x - frame.x) / frame.scale,
    y: (part.y - frame.y) / frame.scale,
    w: part.w / frame.scale,
    h: part.h / frame.scale,
  };
  if (param.value.from === 'shot') return colourWithout(store.project, shot, layer.id, playhead.frame, inShot);
  const plan = planBefore(store.project, shot, layer, pass.id, playhead.frame);
  const back = plan && intoPicture(plan);
  if (!plan || !back) return null;
  const inLayer = (x: number, y: number) =>
    project(back, (x - props.frame.x) / props.frame.scale, (y - props.frame.y) / props.frame.scale);
  const ends = [inLayer(part.x, part.y), inLayer(part.x + part.w, part.y + part.h)] as const;
  const x = Math.min(ends[0][0], ends[1][0]);
  const y = Math.min(ends[0][1], ends[1][1]);
  const w = Math.max(CLICK, Math.abs(ends[1][0] - ends[0][0]));
  const h = Math.max(CLICK, Math.abs(ends[1][1] - ends[0][1]));
  if (x + w < 0 || y + h < 0 || x > plan.size.w || y > plan.size.h) {
    notices.say(`That is outside ${layer.name}. Pick on the layer itself.`, 'problem');
    return null;
  }
  const [r, g, b] = await (
    await useEngine()
  ).measure(plan, 'mean', { x: x - (w === CLICK ? CLICK / 2 : 0), y: y - (h === CLICK ? CLICK / 2 : 0), w, h });
  return [r, g, b];
}

/** A point on the curve where the colour lies. */
function point(of: CurveParam, colour: Colour): void {
  const { pass, picking } = bench;
  const { over, tone } = of;
  if (over === 'life') return;
  const points = valueAt(pass!.values[picking!] as Value<readonly CurvePoint[]>, playhead.moment);
  const more = withPointAt(points, placeOn({ over, tone }, colour), over === 'hue');
  if (!more) notices.say('The curve has a point there already, or as many as it can have.');
  else edits.editLayer((project, at) => setPassValue(project, at, pass!.id, picking!, more));
  bench.picking = null;
}

function keep(colour: Colour, adding: boolean): void {
  const { pass, layer, picking } = bench;
  if (!pass || !layer || !picking) return;
  if (picked.value.kind === 'curve') return point(picked.value, colour);
  const old = valueAt(pass.values[picking] as Value<Colour[]>, playhead.moment);
  const colours = adding && old.length < param.value.most ? [...old, colour] : [colour];
  const rounded = colours.map((c) =>
    c.map((v) => Math.min(1, Math.max(0, Math.round(v * 10000) / 10000))),
  ) as unknown as Colour[];
  if (picking === 'screen') void warn(rounded);
  const { reads, picks } = param.value;
  const warning = picks?.warns?.(colour);
  if (warning) notices.say(warning, 'problem');
  if (picks?.sets) {
    const values = { [picking]: rounded, ...picks.sets(colour) };
    edits.editLayer((project, at) => setPassValues(project, at, pass.id, values, param.value.label.toLowerCase()));
  } else if (reads) void readInto(pass.id, reads, rounded, false);
  else edits.editLayer((project, at) => setPassValue(project, at, pass.id, picking, rounded));
  if (!adding) bench.picking = null;
}

/** Says when a pick is no screen: almost grey, or of a hue that hardly any of the picture has. */
async function warn(picked: readonly Colour[]): Promise<void> {
  const { shot, layer, pass } = bench;
  const colour = picked.at(-1)!;
  const { difference } = screenOf(colour);
  const saturation = `${Math.round(100 * (1 - Math.min(...colour) / Math.max(...colour, 1e-6)))} %`;
  if (difference < LEAST)
    return notices.say(
      `The picked colour is almost grey: its saturation is ${saturation}, its colour difference ${(difference * 100).toFixed(1)} % where a screen has 10 % or more. Pick a more saturated place.`,
      'problem',
    );
  const plan = planBefore(store.current(), shot!, layer!, pass!.id, playhead.frame);
  if (!plan) return;
  const { seen, rim } = await (await useEngine()).measure(plan, 'screenShare', picked);
  const percent = (v: number) => `${(v * 100).toFixed(v < 0.1 ? 1 : 0)} %`;
  if (seen < RARE || rim < RARE_AT_RIM)
    notices.say(
      `This hue (saturation ${saturation}) covers ${percent(seen)} of ${layer!.name} and ${percent(rim)} of its border, so it may be the subject rather than the screen. Pick again if the wrong part goes clear.`,
      'problem',
    );
}
</script>

<template>
  <div
    class="pick"
    :aria-label="
      picksScreen ? 'Pick the screen colour on the picture' : `Pick ${param.label.toLowerCase()} on the picture`
    "
    role="application"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @keydown.esc="bench.picking = null"
  >
    <span class="hint">{{
      picksScreen
        ? 'Pick the screen: click, or drag over an area. Shift adds a sample.'
        : (param.picks?.says ?? `${param.label}: click on the picture, or drag over an area.`)
    }}</span>
    <span
      v-if="area"
      class="area"
      :style="{
        left: `${area.x}px`,
        top: `${area.y}px`,
        width: `${area.w}px`,
        height: `${area.h}px`,
        borderColor: HANDLE.line,
      }"
    />
  </div>
</template>

<style scoped>
.pick {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  touch-action: none;
}
.hint {
  position: absolute;
  left: 50%;
  top: 8px;
  transform: translateX(-50%);
  padding: 3px 10px;
  background: rgb(20 20 20 / 85%);
  border: 1px solid var(--brass);
  border-radius: 3px;
  color: #eee;
  font-size: 0.75rem;
  pointer-events: none;
  white-space: nowrap;
}
.area {
  position: absolute;
  border: 1px solid;
  background: rgb(255 255 255 / 12%);
  pointer-events: none;
}
</style>
