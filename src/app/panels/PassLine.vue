<script setup lang="ts">
import { computed, onBeforeUnmount, reactive, shallowRef, watch, ref } from 'vue';
import { useDebounceFn } from '@vueuse/core';
import { VueDraggable } from 'vue-draggable-plus';
import { mdiClose, mdiContentCopy, mdiEye, mdiEyeOff, mdiPlus } from '@mdi/js';
import { orderPass, removePass, switchPass } from '../../core/document/edits/passes';
import { sourceSize } from '../../core/document/find';
import type { LayerId, Pass } from '../../core/document/schema';
import { sourceOf } from '../../core/sources/registry';
import { PASSES, passOf, titleOf } from '../../core/passes/registry';
import { planAlone } from '../../core/plan/looks';
import { planFrame, planLayer } from '../../core/plan/plan';
import { useEngine } from '../../engine/client';
import { LOOK } from '../../engine/wishes';
import Icon from '../controls/Icon.vue';
import IconButton from '../controls/IconButton.vue';
import { sameItems } from '../base/same';
import PassTile from '../controls/PassTile.vue';
import PassMenu from './PassMenu.vue';
import PassSheet from './PassSheet.vue';
import { ask, useAnswer } from '../base/asks';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { usePlayer } from '../stores/player';
import { useProject } from '../stores/project';
import { useSelection } from '../stores/selection';

/** The chosen layer on its way through its passes, each with the picture after it on the current frame. */
const bench = useBench();
const viewing = useViewing();
const playhead = usePlayhead();
const edits = useEdits();
const sheet = ref(false);
useAnswer('passes', () => (sheet.value = !!bench.size));
const store = useProject();
const player = usePlayer();
const selection = useSelection();
const WIDE = 184;
const TALL = 104;

/** Small pictures by pass id, and for the fixed tiles by name. */
const pictures = reactive<Record<string, ImageBitmap>>({});
/** Passes before Place and after it. An adjustment layer has no Place: all of its passes work in the shot. */
const SPACES = ['layer', 'shot'] as const;
type Space = Pass['space'];
const order = reactive<Record<Space, Pass[]>>({ layer: [], shot: [] });
const placed = computed(() => bench.layer?.source.type !== 'adjustment');
watch(
  () => bench.layer?.passes,
  (passes = []) => {
    order.layer = passes.filter((pass) => !placed.value || pass.space === 'layer');
    order.shot = passes.filter((pass) => placed.value && pass.space === 'shot');
  },
  { immediate: true },
);
/** Layers that a pass can be copied to. */
const others = computed<readonly { id: LayerId; name: string }[]>((before) =>
  sameItems(
    (bench.shot?.layers ?? [])
      .filter(
        (layer) =>
          layer.id !== bench.layerId && !layer.locked && store.project && sourceSize(store.project, bench.shot!, layer),
      )
      .map(({ id, name }) => ({ id, name })),
    before,
  ),
);
const hasPicture = computed(() => bench.size !== null);
const called = computed(() => bench.layer?.name ?? null);
const locked = computed(() => !!bench.layer?.locked);

function keep(name: string, bitmap: ImageBitmap): void {
  pictures[name]?.close();
  pictures[name] = bitmap;
}

/** What has no picture of its own shows none of another layer. */
function forget(): void {
  for (const name of Object.keys(pictures)) {
    if (name === 'shot') continue;
    pictures[name]!.close();
    delete pictures[name];
  }
}

let run = 0;
async function refresh(): Promise<void> {
  const { shot, layer } = bench;
  if (!shot || !layer || !store.project || player.playing || !hasPicture.value) return;
  const mine = ++run;
  const plan = planLayer(store.project, shot, layer, playhead.frame, 4);
  const engine = await useEngine();
  try {
    const whole = await engine.frame(
      planFrame(store.project, shot.id, playhead.frame, { reduction: 4 }),
      'picture',
      LOOK,
    );
    if (mine !== run) return;
    keep('shot', await createImageBitmap(whole.bitmap));
    if (!plan) return forget();
    const small = await engine.thumbnails(plan, WIDE, TALL);
    if (mine !== run) return small.forEach((bitmap) => bitmap.close());
    keep('source', small[0]!);
    plan.passes.forEach((pass, i) => keep(pass.id, small[i + 1]!));
    const before = layer.passes.filter((pass) => pass.space === 'layer');
    const seen = (passes: Pass[]) =>
      engine.frame(planAlone(store.project!, shot, layer, playhead.frame, 4, passes), 'picture', LOOK);
    const lying = await seen(before);
    if (mine !== run) return;
    // after Place the picture is the shot's; each such pass is seen with those before it
    for (const pass of plan.after) {
      const upTo = layer.passes.slice(0, layer.passes.findIndex((item) => item.id === pass.id) + 1);
      const { bitmap } = await seen(upTo);
      if (mine !== run) return;
      keep(pass.id, await createImageBitmap(bitmap));
    }
    keep('place', await createImageBitmap(lying.bitmap));
  } catch {
    // what went wrong with a picture is said in the viewer, where it is large
  }
}
const refreshSoon = useDebounceFn(refresh, 120, { maxWait: 400 });
watch([() => store.project, () => playhead.frame, () => bench.layerId, () => player.playing], refreshSoon, {
  immediate: true,
});
// pictures of the layer before are not those of this one, however long these take
watch(
  () => bench.layerId,
  () => {
    run++;
    forget();
  },
);
onBeforeUnmount(() => Object.values(pictures).forEach((bitmap) => bitmap.close()));

/** A tile was dropped, in its own half or in the other one. */
function reordered(space: Space, { newIndex }: { newIndex?: number }): void {
  const pass = order[space][newIndex ?? -1];
  if (pass)
    edits.editLayer((project, at) => orderPass(project, at, pass.id, newIndex!, placed.value ? space : undefined));
}
/** Moves a pass one place on; at Place it goes over to the other half. */
function moveBy(pass: Pass, by: number): void {
  const half = order[placed.value ? pass.space : 'layer'];
  const to = half.findIndex((item) => item.id === pass.id) + by;
  const over = placed.value && (to < 0 ? pass.space === 'shot' : to >= half.length && pass.space === 'layer');
  const space = over ? (pass.space === 'layer' ? 'shot' : 'layer') : pass.space;
  const index = !over ? Math.max(0, to) : space === 'shot' ? 0 : order.layer.length;
  edits.editLayer((project, at) => orderPass(project, at, pass.id, index, space));
}
/** The pass that was asked about with the other button, and where. */
const asked = shallowRef<{ pass: Pass; at: [number, number] } | null>(null);
const bare = computed(() => !bench.line.length);
const sourceType = computed(() => bench.layer?.source.type);
/** What people usually begin with, for a source that has no pass yet: footage, something that is drawn, or all that lies below. */
const beginnings = computed(() => {
  if (!bare.value || sourceType.value === undefined) return [];
  const declared = sourceOf(sourceType.value);
  const usual = !placed.value
    ? ['adjust']
    : declared && 'draw' in declared
      ? ['outline', 'drop-shadow', 'blur']
      : ['colour-key', 'crop', 'adjust'];
  return usual.map((type) => passOf(type)!);
});
</script>

<template>
  <section class="line" aria-label="Passes">
    <template v-if="called !== null && hasPicture">
      <PassTile
        title="Source"
        fixed
        :picture="pictures['source']"
        :chosen="bench.chosen === 'source'"
        @choose="bench.show('source')"
      />
      <PassTile
        v-for="pass in bench.clipPasses"
        :key="pass.id"
        of-clip
        :title="titleOf(pass.type)"
        :picture="pictures[pass.id]"
        :chosen="bench.chosen === pass.id"
        :off="!pass.on"
        @choose="bench.show(pass.id)"
        @hold="viewing.upTo = pass.id"
        @release="viewing.upTo = null"
        @remove="edits.editLayer((project, at) => removePass(project, at, pass.id))"
      >
        <IconButton
          :label="`${pass.on ? 'Switch off' : 'Switch on'} ${titleOf(pass.type)} of the clip`"
          :icon="pass.on ? mdiEye : mdiEyeOff"
          @click="edits.editLayer((project, at) => switchPass(project, at, pass.id))"
        />
        <IconButton
          :label="`Delete ${titleOf(pass.type)} of the clip`"
          :icon="mdiClose"
          @click="edits.editLayer((project, at) => removePass(project, at, pass.id))"
        />
      </PassTile>
      <template v-for="space in SPACES" :key="space">
        <VueDraggable
          v-model="order[space]"
          :group="placed ? 'passes' : undefined"
          class="passes"
          :aria-label="space === 'layer' ? 'Before Place' : 'After Place'"
          role="group"
          filter="button.icon-button"
          :prevent-on-filter="false"
          :disabled="locked"
          :animation="120"
          @add="(moved: { newIndex?: number }) => reordered(space, moved)"
          @update="(moved: { newIndex?: number }) => reordered(space, moved)"
        >
          <div
            v-for="pass in order[space]"
            :key="pass.id"
            class="step"
            @contextmenu.prevent="asked = { pass, at: [$event.clientX, $event.clientY] }"
          >
            <PassTile
              :title="titleOf(pass.type)"
              :picture="pictures[pass.id]"
              :chosen="bench.chosen === pass.id"
              :off="!pass.on"
              :area="pass.area?.side"
              @choose="selection.pickPass(pass.id)"
              @left="moveBy(pass, -1)"
              @right="moveBy(pass, 1)"
              @hold="viewing.upTo = pass.id"
              @release="viewing.upTo = null"
              @remove="edits.editLayer((project, at) => removePass(project, at, pass.id))"
            >
              <IconButton
                :label="`${pass.on ? 'Switch off' : 'Switch on'} ${titleOf(pass.type)}`"
                :icon="pass.on ? mdiEye : mdiEyeOff"
                @click="edits.editLayer((project, at) => switchPass(project, at, pass.id))"
              />
              <v-menu v-if="others.length">
                <template #activator="{ props: menu }">
                  <IconButton
                    v-bind="menu"
                    :label="`Copy ${titleOf(pass.type)} to another layer`"
                    :icon="mdiContentCopy"
                    @click="bench.show(pass.id)"
                  />
                </template>
                <v-list
                  ><v-list-item
                    v-for="other in others"
                    :key="other.id"
                    :title="other.name"
                    @click="edits.copyPassTo(other.id)"
                /></v-list>
              </v-menu>
              <IconButton
                :label="`Delete ${titleOf(pass.type)}`"
                :icon="mdiClose"
                @click="edits.editLayer((project, at) => removePass(project, at, pass.id))"
              />
            </PassTile>
          </div>
        </VueDraggable>
        <template v-if="space === 'layer'">
          <span v-if="beginnings.length" class="beginnings">
            <v-btn
              v-for="pass in beginnings"
              :key="pass.type"
              size="small"
              :title="pass.help"
              :disabled="locked"
              @click="edits.insertPass(pass.type)"
              >{{ pass.title }}</v-btn
            >
          </span>
          <v-menu>
            <template #activator="{ props: menu }">
              <v-btn
                v-bind="menu"
                class="add"
                rounded="circle"
                aria-label="Add a pass"
                title="Add a pass"
                :disabled="locked"
              >
                <Icon :path="mdiPlus" />
              </v-btn>
            </template>
            <v-list>
              <v-list-item
                title="All by their pictures…"
                subtitle="on this frame of the layer"
                @click="ask('passes')"
              />
              <v-list-item title="Search… (Ctrl+K)" @click="ask('search')" />
              <v-divider />
              <v-list-item
                v-for="pass in PASSES"
                :key="pass.type"
                :title="pass.title"
                :subtitle="pass.group"
                @click="edits.insertPass(pass.type)"
              />
            </v-list>
          </v-menu>
        </template>
        <PassTile
          v-if="placed && space === 'layer'"
          title="Place"
          fixed
          :picture="pictures['place']"
          :chosen="bench.chosen === 'place'"
          @choose="bench.show('place')"
        />
      </template>
      <PassTile
        title="In the shot"
        fixed
        last
        :picture="pictures['shot']"
        :chosen="false"
        @choose="viewing.view = 'picture'"
      />
    </template>
    <PassSheet v-model="sheet" />
    <PassMenu v-if="asked" :pass="asked.pass" :at="asked.at" :others="others" @close="asked = null" />
    <p v-if="called !== null && !hasPicture" class="dim none">{{ called }} is sound only; its level is in the dials.</p>
    <p v-else-if="called === null" class="dim none">Choose a layer to see it go through its passes.</p>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  align-items: center;
  height: 5.75rem;
  padding: 0 10px;
  background: var(--panel);
  border-top: 1px solid var(--line);
  overflow: auto hidden;
}
.passes {
  display: flex;
}
.step {
  display: flex;
}
.add.v-btn {
  flex: none;
  width: 1.625rem;
  min-width: 0;
  height: 1.625rem;
  min-height: 0;
  padding: 0;
  background: none;
  margin-right: 14px;
  border: 1px dashed var(--dim);
  border-radius: 50%;
  color: var(--dim);
}
.add:hover:enabled {
  color: var(--text);
  border-color: var(--text);
}
.add svg {
  width: 0.875rem;
  fill: currentColor;
}
.beginnings {
  display: flex;
  gap: 6px;
  margin-right: 10px;
}
.none {
  padding: 0 6px;
}
</style>
