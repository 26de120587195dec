import { nextTick } from 'vue';
import { PASSES } from '../../core/passes/registry';
import type { Params } from '../../core/params/registry';
import { openGroups } from '../dials/open-groups';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import type { Entry } from './entry';

const CONTROLS = ':is(input, button, [role=combobox], [role=slider]):not(:disabled)';
const nameOf = (control: Element): string =>
  control.getAttribute('aria-label') ?? (control as HTMLInputElement).labels?.[0]?.textContent ?? '';

/** Brings the dial of that name in the dials panel into view and gives it the focus. */
export async function focusDial(label: string): Promise<void> {
  await nextTick();
  await new Promise(requestAnimationFrame);
  const panel = document.querySelector('section[aria-label="Dials"]');
  const named = [...(panel?.querySelectorAll<HTMLElement>(CONTROLS) ?? [])].filter((control) =>
    nameOf(control).trim().toLowerCase().startsWith(label.toLowerCase()),
  );
  const [dial] = named;
  dial?.scrollIntoView({ block: 'center' });
  dial?.focus();
}

/** Names and wishes of what every layer has. */
const OF_LAYER: readonly { title: string; what: 'place' | 'source'; more: string; words: string; label?: string }[] = [
  { title: 'Position', what: 'place', more: 'where the layer lies', words: 'move left right up down put location x y' },
  {
    title: 'Scale',
    what: 'place',
    more: 'how large the layer is',
    words: 'size bigger smaller resize enlarge shrink zoom picture in picture inset',
    label: 'Scale width',
  },
  {
    title: 'Rotation',
    what: 'place',
    more: 'how far the layer is turned',
    words: 'rotate turn spin angle tilt sideways',
  },
  {
    title: 'Anchor',
    what: 'place',
    more: 'the point that it turns about',
    words: 'pivot centre of rotation origin',
    label: 'Anchor x',
  },
  {
    title: 'Tilt',
    what: 'place',
    more: 'turned out of the picture plane',
    words: '3d perspective swing door card',
    label: 'Tilt x',
  },
  {
    title: 'Depth',
    what: 'place',
    more: 'how far behind the picture plane',
    words: '3d away near far z distance vanishing point',
  },
  { title: 'Perspective', what: 'place', more: 'how strongly what is tilted comes nearer', words: '3d depth' },
  {
    title: 'Opacity',
    what: 'place',
    more: 'how much of the layer is seen',
    words: 'transparent transparency see-through translucent faint ghost half visible blend',
  },
  {
    title: 'Blend mode',
    what: 'place',
    more: 'how the layer mixes with what lies below',
    words: 'multiply screen add overlay lighten darken mix mode',
  },
  {
    title: 'Follows',
    what: 'place',
    more: 'the layer goes along with another',
    words: 'follow parent attach stick link to another object moves',
  },
  { title: 'Motion blur', what: 'place', more: 'its own movement smears', words: 'shutter smear streak fast movement' },
  { title: 'Flip sideways', what: 'place', more: 'left for right', words: 'mirror flip reflect horizontal' },
  { title: 'Flip upside down', what: 'place', more: 'top for bottom', words: 'mirror flip reflect vertical' },
  {
    title: 'Framing',
    what: 'place',
    more: 'moves over a still, from stop to stop',
    words: 'pan and zoom over a still photo slowly ken pictures slide show camera move',
  },
  {
    title: 'Speed',
    what: 'source',
    more: 'how fast the clip runs',
    words: 'slower faster slow motion slow down speed up ramp time lapse tempo retime',
  },
  {
    title: 'Between frames',
    what: 'source',
    more: 'how frames in between are made',
    words: 'interpolation smooth slow motion frame blending optical flow in-between',
  },
  { title: 'Level', what: 'source', more: 'how loud the layer is', words: 'volume louder quieter sound gain audio' },
  { title: 'Length', what: 'source', more: 'how long the layer is', words: 'duration longer shorter' },
];

/** Every dial: of the layer, and of each pass, which is added when the layer has none. */
export function dialEntries(): Entry[] {
  const bench = useBench();
  const edits = useEdits();
  const { layer } = bench;
  if (!layer) return [];
  const own = OF_LAYER.map(({ title, what, more, words, label }) => ({
    kind: 'dial',
    title,
    more,
    words,
    run: () => {
      bench.show(what);
      void focusDial(label ?? title);
    },
  }));
  const there = new Set(layer.passes.map(({ type }) => type));
  const ofPasses = PASSES.flatMap((pass) =>
    Object.values(pass.params as Params)
      .filter((param) => !param.within && !param.retired)
      .map((param) => ({
        kind: there.has(pass.type) ? 'dial' : 'dial to add',
        title: `${param.label}: ${pass.title}`,
        more: param.help,
        words: '',
        run: () => {
          edits.openPass(pass.type);
          if (param.group && !openGroups.value.includes(param.group))
            openGroups.value = [...openGroups.value, param.group];
          void focusDial(param.label);
        },
      })),
  );
  return bench.size ? [...own, ...ofPasses] : own.filter(({ title }) => ['Level', 'Length', 'Speed'].includes(title));
}
