<script setup lang="ts">
import { computed, watch } from 'vue';
import { setArea } from '../../core/document/edits/masks';
import { setPassValue } from '../../core/document/edits/passes';
import type { MaskId } from '../../core/document/mask';
import type { Value } from '../../core/document/value';
import type { Colour, NumberParam, Plate } from '../../core/passes/define';
import { passOf } from '../../core/passes/registry';
import { steadyAt } from '../../core/time/values';
import Dial from '../controls/Dial.vue';
import MaskPicker from '../controls/MaskPicker.vue';
import Peg from '../controls/Peg.vue';
import PlateDial from '../controls/PlateDial.vue';
import SamplesDial from '../controls/SamplesDial.vue';
import { useBench } from '../stores/bench';
import { planBefore } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import { useMasking } from '../stores/masking';
import { useNotices } from '../stores/notices';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { colourWithout } from '../viewer/shot-colour';

/** The dials of a pass, made from its declaration. */
const bench = useBench();
const store = useProject();
const player = usePlayer();
const pass = computed(() => bench.pass!);
const declared = computed(() => passOf(pass.value.type)!);
const locked = computed(() => bench.layer!.locked || store.readOnly);

const valueOf = (name: string): unknown =>
  steadyAt(pass.value.values[name] as Value<unknown>, bench.frame - bench.layer!.span.start);
/** The parameters that have an effect at this frame. */
const params = computed(() =>
  Object.fromEntries(
    Object.entries(declared.value.params).filter(([, { when }]) => !when || valueOf(when.choice) === when.is),
  ),
);
watch(params, () => {
  if (bench.picking && !(bench.picking in params.value)) bench.picking = null;
});
/** Percent is stored as a share of one. */
const factor = (param: NumberParam) => (param.unit === '%' ? 100 : 1);
function dial(name: string, param: NumberParam) {
  const f = factor(param);
  return {
    path: `pass.${pass.value.id}.${name}`,
    label: param.label,
    help: param.help,
    unit: param.unit,
    value: (valueOf(name) as number) * f,
    reset: param.default * f,
    min: param.min * f,
    max: param.max * f,
    slider: [param.slider[0] * f, param.slider[1] * f] as const,
    digits: f === 100 ? 1 : 2,
    disabled: locked.value,
  };
}
function set(name: string, value: unknown, dragging = false): void {
  if (dragging) player.touching = true;
  const { id } = pass.value;
  bench.editLayer((project, at) => setPassValue(project, at, id, name, value), dragging ? `${id} ${name}` : undefined);
}
function end(): void {
  player.touching = false;
  store.endGesture();
}
const masking = useMasking();
const notices = useNotices();
/** Proposes samples for the screen from the picture that comes into the key. */
async function find(): Promise<void> {
  // by the time they are found something else may be chosen
  const { id } = pass.value;
  try {
    const plan = planBefore(store.current(), bench.shot!, bench.layer!, id, bench.frame);
    const { layer, at } = bench;
    const found = plan && (await (await useEngine()).findScreen(plan));
    if (!found)
      return notices.say(
        `No screen was found in ${layer!.name}: nothing in it is saturated enough. Pick it by hand, or use a difference key.`,
        'problem',
      );
    store.edit(setPassValue(store.current(), at!, id, 'screen', found.samples));
    if (bench.pass?.id === id) bench.picking = null;
  } catch (error) {
    notices.problem(error);
  }
}
/** Takes the mean colour of the shot without the layer, as it is at this frame. */
async function background(name: string): Promise<void> {
  const { id } = pass.value;
  const { at, shot, layer, frame } = bench;
  try {
    const colour = await colourWithout(store.current(), shot!, layer!.id, frame);
    store.edit(setPassValue(store.current(), at!, id, name, [colour.map((v) => Math.round(v * 10000) / 10000)]));
  } catch (error) {
    notices.problem(error);
  }
}
/** Where the pass works. The first choice of a side takes the mask that was worked on last. */
function limit(side: string): void {
  const { id, area } = pass.value;
  const first = masking.maskId ?? masking.masks[0]?.id;
  const masks = area?.masks ?? (first ? [first] : []);
  bench.editLayer((project, at) =>
    setArea(project, at, id, side === 'everywhere' ? null : { masks, side: side as 'inside' }),
  );
}
const areaMasks = (masks: MaskId[]): void =>
  bench.editLayer((project, at) =>
    setArea(project, at, pass.value.id, { masks, side: pass.value.area?.side ?? 'inside' }),
  );
</script>

<template>
  <div>
    <template v-for="(param, name) in params" :key="name">
      <Dial
        v-if="param.kind === 'number'"
        v-bind="dial(name, param)"
        @change="(v, d) => set(name, v / factor(param), d)"
        @end="end"
      />
      <label v-else-if="param.kind === 'choice'" class="dial-row" :title="param.help">
        {{ param.label }}
        <select
          :value="valueOf(name)"
          :disabled="locked"
          :aria-label="param.label"
          @change="set(name, ($event.target as HTMLSelectElement).value)"
        >
          <option v-for="option in param.options" :key="option.value" :value="option.value">{{ option.label }}</option>
        </select>
        <Peg :path="`pass.${pass.id}.${name}`" />
      </label>
      <div v-else-if="param.kind === 'masks'" :title="param.help">
        <span class="dial-row"
          >{{ param.label }}
          <span v-if="!(valueOf(name) as MaskId[]).length" class="dim">{{
            param.empty === 'all' ? 'all of them' : 'none'
          }}</span></span
        >
        <MaskPicker
          :label="param.label"
          :chosen="valueOf(name) as MaskId[]"
          :disabled="locked"
          @change="(ids) => set(name, ids)"
        />
      </div>
      <PlateDial
        v-else-if="param.kind === 'plate'"
        :param="param"
        :plate="valueOf(name) as Plate"
        :disabled="locked"
        @change="(plate) => set(name, plate)"
      />
      <SamplesDial
        v-else
        :name="name"
        :param="param"
        :colours="valueOf(name) as Colour[]"
        :path="`pass.${pass.id}.${name}`"
        :disabled="locked"
        @change="(colours) => set(name, colours)"
        @find="find"
        @background="background(name)"
      />
    </template>
    <template v-if="pass.type !== 'mask'">
      <hr />
      <label class="dial-row">
        Area
        <select
          :value="pass.area?.side ?? 'everywhere'"
          :disabled="locked"
          aria-label="Area"
          @change="
            (limit(($event.target as HTMLSelectElement).value),
            (($event.target as HTMLSelectElement).value = pass.area?.side ?? 'everywhere'))
          "
        >
          <option value="everywhere">everywhere</option>
          <option value="inside">inside masks</option>
          <option value="outside">outside masks</option>
        </select>
      </label>
      <p v-if="pass.area && !pass.area.masks.length" class="hint" role="note">
        No mask is chosen yet, so it works everywhere. The next mask you draw becomes its area.
      </p>
      <MaskPicker
        v-if="pass.area"
        label="Masks of the area"
        :chosen="pass.area.masks"
        :disabled="locked"
        @change="areaMasks"
      />
    </template>
    <p class="help dim">{{ declared.help }}</p>
  </div>
</template>

<style scoped>
.hint {
  padding: 4px 8px;
  border-left: 2px solid var(--dim);
  font-size: 0.75rem;
  color: var(--dim);
}
.help {
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid var(--line);
  font-size: 0.75rem;
  line-height: 1.45;
}
</style>
