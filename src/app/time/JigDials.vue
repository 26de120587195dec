<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { mdiContentSaveOutline, mdiTrashCanOutline } from '@mdi/js';
import { holderOfDial, holdersOf, possibleDials, usualDials } from '../../core/document/edits/jig-dials';
import { MOST_JIG_DIALS, type DialledJig, type JigDial } from '../../core/document/schema';
import Check from '../controls/Check.vue';
import IconButton from '../controls/IconButton.vue';
import TextField from '../controls/TextField.vue';
import { useJigs } from '../stores/jigs';
import { useProject } from '../stores/project';
import JigPart from './JigPart.vue';

/** The dials of a jig before it is put in. One of the project's own is named here, saved as a file, deleted, and chooses which dials it has. @property refusal why it cannot be put in now */
const props = defineProps<{ jig: DialledJig; refusal?: string }>();
const emit = defineEmits<{ turn: [holder: string, name: string, value: unknown]; put: []; removed: [] }>();
const jigs = useJigs();
const store = useProject();

const own = computed(() => jigs.all.find(({ id }) => id === props.jig.id) ?? null);
const dials = computed(() => own.value?.dials ?? usualDials(props.jig));
const holders = computed(() => holdersOf(props.jig));
/** Its parts that have dials, each with their names. */
const turning = computed(() =>
  holders.value
    .map((holder) => ({ holder, names: dials.value.filter((dial) => of(dial, holder.key)).map(({ value }) => value) }))
    .filter(({ names }) => names.length),
);
const of = (dial: JigDial, key: string): boolean => holderOfDial(dial) === key;

const choosing = ref(false);
watch(
  () => props.jig.id,
  () => (choosing.value = false),
);
const possible = computed(() => {
  const offered = own.value ? possibleDials(own.value) : [];
  return holders.value
    .map(({ key, title, params }) => ({
      key,
      title,
      dials: offered
        .filter((dial) => of(dial, key))
        .map((dial) => ({ dial, label: params[dial.value]?.label ?? dial.value, on: has(dial) })),
    }))
    .filter(({ dials: some }) => some.length);
});
const same = (a: JigDial, b: JigDial): boolean => holderOfDial(a) === holderOfDial(b) && a.value === b.value;
const has = (dial: JigDial): boolean => dials.value.some((one) => same(one, dial));
function toggle(dial: JigDial): void {
  const others = dials.value.filter((one) => !same(one, dial));
  jigs.setDials(own.value!.id, has(dial) ? others : [...others, dial]);
}
function remove(): void {
  jigs.remove(own.value!.id);
  emit('removed');
}
</script>

<template>
  <aside aria-label="Dials of the jig">
    <div v-if="own" class="own">
      <TextField
        :label="`Name of jig ${own.name}`"
        :value="own.name"
        :disabled="store.readOnly"
        @change="(name) => jigs.rename(own!.id, name)"
      />
      <IconButton :label="`Save ${own.name} as a file`" :icon="mdiContentSaveOutline" @click="jigs.save(own)" />
      <IconButton
        :label="`Delete jig ${own.name}`"
        :icon="mdiTrashCanOutline"
        :disabled="store.readOnly"
        @click="remove"
      />
    </div>
    <strong v-else>{{ jig.name }}</strong>
    <JigPart
      v-for="{ holder, names } in turning"
      :key="holder.key"
      :holder="holder"
      :names="names"
      @change="(name, value) => emit('turn', holder.key, name, value)"
    />
    <p v-if="!turning.length" class="dim">It has no dials.</p>
    <template v-if="own && possible.length">
      <v-btn size="small" :aria-expanded="choosing" @click="choosing = !choosing">Which dials ▾</v-btn>
      <div v-if="choosing" class="which" role="group" aria-label="Which dials it has">
        <template v-for="{ key, title, dials: offered } in possible" :key="key">
          <span class="dim">{{ title }}</span>
          <Check
            v-for="{ dial, label, on } in offered"
            :key="dial.value"
            :label="label"
            :value="on"
            :disabled="store.readOnly || (!on && dials.length >= MOST_JIG_DIALS)"
            @change="toggle(dial)"
          />
        </template>
      </div>
    </template>
    <v-btn color="primary" variant="flat" :disabled="store.readOnly || !!refusal" @click="emit('put')">Put in</v-btn>
    <p v-if="refusal" class="dim">{{ refusal }}</p>
  </aside>
</template>

<style scoped>
aside {
  display: grid;
  gap: 8px;
  position: sticky;
  top: 0;
}
.own {
  display: grid;
  grid-template-columns: 1fr auto auto;
  align-items: center;
  gap: 4px;
}
.which {
  max-height: 16rem;
  overflow: auto;
  padding: 6px 8px;
  border: 1px solid var(--line);
}
p {
  font-size: 0.8125rem;
}
</style>
