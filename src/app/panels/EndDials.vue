<script setup lang="ts">
import { computed } from 'vue';
import { fadesOf, setFade, setTransitionValue, transitionAt, type Fades } from '../../core/document/edits/ends';
import { transitionOf, TRANSITIONS } from '../../core/transitions/registry';
import Choice from '../controls/Choice.vue';
import NumberField from '../controls/NumberField.vue';
import ParamDials from '../dials/ParamDials.vue';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useProject } from '../stores/project';
import { takeTransition } from '../time/actions';

/** What the chosen layer begins or ends with, how long, and its dials. */
const props = defineProps<{ end: keyof Fades }>();
const bench = useBench();
const edits = useEdits();
const store = useProject();
const layer = computed(() => bench.layer!);
const frames = computed(() => fadesOf(layer.value)[props.end]);
const own = computed(() => transitionAt(layer.value, props.end));
const declared = computed(() => transitionOf(own.value?.type ?? ''));
const locked = computed(() => layer.value.locked || store.readOnly);
const FADE = 'fade';
const options = [{ value: FADE, title: 'Fade' }, ...TRANSITIONS.map(({ type, title }) => ({ value: type, title }))];

const choose = (type: string): void => takeTransition(props.end, type === FADE ? null : type);
const set = (name: string, value: unknown, dragging: boolean): void =>
  edits.editLayer(
    (project, at) => setTransitionValue(project, at, props.end, name, value),
    dragging ? `end ${name}` : undefined,
  );
</script>

<template>
  <div>
    <div class="dial-row">
      {{ end === 'in' ? 'Begins with' : 'Ends with' }}
      <Choice
        :label="end === 'in' ? 'Begins with' : 'Ends with'"
        :value="frames ? (own?.type ?? FADE) : null"
        placeholder="nothing"
        :options="options"
        :disabled="locked || layer.source.type === 'adjustment'"
        @change="choose"
      />
    </div>
    <div class="dial-row">
      Takes
      <NumberField
        label="Takes"
        unit="f"
        :value="frames"
        :min="0"
        :max="layer.span.length - 1"
        :digits="0"
        :rate="bench.shot!.rate"
        :disabled="locked"
        @change="
          (v, dragging) =>
            edits.editLayer((project, at) => setFade(project, at, end, v), dragging ? 'end length' : undefined)
        "
        @end="store.endGesture"
      />
    </div>
    <p v-if="declared" class="dim">{{ declared.help }}</p>
    <p v-else class="dim">The picture fades, and its sound with it.</p>
    <ParamDials
      v-if="own && declared"
      :key="own.type"
      :params="declared.params"
      :values="own.values"
      :path="`end.${end}`"
      :disabled="locked"
      @change="set"
    />
  </div>
</template>
