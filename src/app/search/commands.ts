import { ALIGNMENTS } from '../../core/document/edits/align';
import { ARRIVALS } from '../../core/document/edits/arrive';
import { setFade } from '../../core/document/edits/ends';
import { TRANSITIONS } from '../../core/transitions/registry';
import { letTitleArrive, takeTransition, usualFade } from '../time/actions';
import { resetPlace, setMuted, switchLayer } from '../../core/document/edits/layers';
import { freezeHere, relateLayer, reverseLayer } from '../../core/document/edits/time';
import { LAYER_PARTS, stockOf } from '../../core/document/schema';
import { ask } from '../base/asks';
import { shortcutTable } from '../keyboard/shortcuts';
import { OFFERED_MASKS, SELECTION_WORDS } from '../masks/offered';
import { router } from '../router';
import { useAids } from '../stores/aids';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useGrades } from '../stores/grades';
import { useJigs } from '../stores/jigs';
import { useMasking } from '../stores/masking';
import { usePlayer } from '../stores/player';
import { useRows } from '../stores/rows';
import { useScopes } from '../stores/scopes';
import { useSelection } from '../stores/selection';
import { pinFrame } from '../stores/stills';
import { useTracking } from '../stores/tracking';
import { OFFERED_TRACKS } from '../track/offered';
import { focusDial } from './dials';
import type { Entry } from './entry';

type Command = readonly [title: string, more: string, words: string, run: () => unknown];
const entries = (commands: readonly Command[], kind = 'command'): Entry[] =>
  commands.map(([title, more, words, run]) => ({ kind, title, more, words, run: () => void run() }));

/** What can be done at any time, and what has a shortcut. */
export function commandEntries(): Entry[] {
  const bench = useBench();
  const player = usePlayer();
  const scopes = useScopes();
  const aids = useAids();
  const shortcuts = shortcutTable().map(({ does, shown, words = '', run }) => ({
    kind: 'command',
    title: does,
    more: shown,
    words,
    run,
  }));
  const anywhere = entries([
    ['New shot…', 'in this project', 'start a new scene composition sequence timeline', () => ask('new-shot')],
    ['Import files…', 'into the stock', 'add footage open load media video picture sound', () => ask('import')],
    [
      'Save a copy as a file',
      'the whole project',
      'save project download backup jackplane file',
      () => ask('save-copy'),
    ],
    [
      'Evening or daylight look',
      'of the workshop',
      'dark mode light mode theme bright colours of the interface',
      () => ask('look'),
    ],
    ['Renders', 'the queue and finished files', 'exports output downloads', () => router.push('/renders')],
    ['Guide', 'the job in ten steps', 'help tutorial how to manual learn', () => router.push('/guide')],
    ['Projects', 'all of them', 'home files open another project', () => router.push('/')],
  ]);
  if (!bench.shot) return [...anywhere, ...shortcuts];
  return [
    ...entries([
      [
        'Render…',
        'the shot to a file',
        'export save the video movie output mp4 webm publish write',
        () => ask('render'),
      ],
      [
        'Jigs…',
        'by their pictures: put in, save as files, open files',
        'preset template file import export',
        () => ask('jigs'),
      ],
      [
        'Shot settings…',
        'size, rate and length',
        'resolution frame rate duration aspect canvas background',
        () => ask('shot-settings'),
      ],
      [
        'Pin this frame',
        'full size, to the stock',
        'take a screenshot still picture snapshot grab export frame photo',
        pinFrame,
      ],
      ['Loop', player.loop ? 'is on' : 'is off', 'repeat again and again', () => (player.loop = !player.loop)],
      [
        'Show scopes',
        'how bright where, how much of each, which colours',
        'histogram waveform vectorscope levels check exposure',
        () => (scopes.open = true),
      ],
      [
        'Rulers and guides',
        aids.rulers ? 'are shown' : 'beside the picture',
        'helper lines to align things on measure',
        () => (aids.rulers = !aids.rulers),
      ],
      [
        'Safe areas',
        aids.safe ? 'are shown' : 'on the picture',
        'title safe action safe margins frame overscan',
        () => (aids.safe = !aids.safe),
      ],
      ['Grid', aids.grid ? 'is shown' : 'on the picture', 'raster lines thirds', () => (aids.grid = !aids.grid)],
      [
        'Stripes where clipped',
        'on the picture',
        'overexposed zebra blown out highlights too bright',
        () => (scopes.stripes = scopes.stripes === 'clipped' ? 'none' : 'clipped'),
      ],
      [
        'Stripes beyond video range',
        'on the picture',
        'legal range broadcast safe levels 16 235 illegal colours too bright for television',
        () => (scopes.stripes = scopes.stripes === 'video' ? 'none' : 'video'),
      ],
    ]),
    ...anywhere,
    ...shortcuts,
  ];
}

/** Usual ways for a chosen title to arrive. */
export function arrivalEntries(): Entry[] {
  const bench = useBench();
  const { layer, shot } = bench;
  if (!shot || layer?.source.type !== 'title') return [];
  return ARRIVALS.map((way) => ({
    kind: 'command',
    title: way.title,
    more: `lets ${layer.name} arrive`,
    words: `title text ; animate the letters ; ${way.words}`,
    run: () => letTitleArrive(way),
  }));
}

/** What the chosen layer can begin or end with. */
export function transitionEntries(): Entry[] {
  const bench = useBench();
  const { layer, shot } = bench;
  if (!layer || !shot || !bench.size || layer.source.type === 'adjustment') return [];
  return TRANSITIONS.flatMap(({ type, title, help, words }) =>
    (['in', 'out'] as const).map((end) => ({
      kind: 'transition',
      title: `${title} ${end}`,
      more: help,
      words: ['transition', ...words].join(' ; '),
      tries: { transition: type },
      run: () => takeTransition(end, type),
    })),
  );
}

/** What can be done with the chosen layer. */
export function layerCommands(): Entry[] {
  const bench = useBench();
  const playhead = usePlayhead();
  const edits = useEdits();
  const { layer, shot } = bench;
  if (!layer || !shot) return [];
  const selection = useSelection();
  const grades = useGrades();
  const clip = stockOf(layer);
  const half = usualFade(shot);
  const fade = (end: 'in' | 'out') => edits.editLayer((project, at) => setFade(project, at, end, half));
  const flip = (which: 'shown' | 'solo' | 'locked') =>
    edits.editLayer((project, at) => switchLayer(project, at, which));
  const rows = useRows();
  const matchColours = () => {
    edits.openPass('wheels');
    void focusDial('Match');
  };
  const general: Command[] = [
    [
      'Fade in',
      `half a second, from ${layer.name}’s beginning`,
      'appear from black dissolve transition up slowly',
      () => fade('in'),
    ],
    [
      'Fade out',
      `half a second, to ${layer.name}’s end`,
      'disappear to black nothing dissolve transition down',
      () => fade('out'),
    ],
    ...ALIGNMENTS.map(({ name, label }): Command => [
      `Align ${label.toLowerCase()}`,
      'of the chosen layers, or of one with the shot',
      'line up arrange in line centre middle',
      () => selection.align(name),
    ]),
    ['Delete layer', layer.name, 'remove throw away', () => selection.remove()],
    ['Duplicate layer', layer.name, 'copy again twice clone', () => selection.duplicate(0)],
    ['Group layers', 'those that are chosen', 'put together nest combine precompose several as one', selection.group],
    [layer.shown ? 'Hide layer' : 'Show layer', layer.name, 'invisible off visible eye', () => flip('shown')],
    [layer.locked ? 'Unlock layer' : 'Lock layer', layer.name, 'protect', () => flip('locked')],
    ['Only this layer', 'the others are not shown', 'solo alone isolate', () => flip('solo')],
    [
      'Fill the shot',
      'from its first frame to its last',
      'as long as the shot whole length stretch',
      () => edits.editLayer((project, at) => relateLayer(project, { ...at, frame: playhead.frame }, { kind: 'fill' })),
    ],
    ['Reset place', 'where it was when it was added', 'original position size', () => edits.editLayer(resetPlace)],
    [
      'Grow the rows of the layer',
      'into curves',
      'graph editor keyframe curves animation easing',
      () => rows.toggleCurves(layer),
    ],
  ];
  const keep: Command[] = [
    ['Keep as a jig', 'made layers, to be used again', 'save preset template reuse', useJigs().keep],
    [
      'Keep what was done as a jig',
      `passes, masks, place, transitions of ${layer.name}`,
      'save preset template reuse effects settings',
      () => useJigs().keepParts(new Set(LAYER_PARTS.map(({ name }) => name))),
    ],
  ];
  const ofPicture: Command[] = [
    [
      'Passes by their pictures…',
      'each on this frame of the chosen layer',
      'effects gallery browse all filters overview',
      () => ask('passes'),
    ],
    [
      'Looks…',
      'see this frame in several and choose',
      'preset filter style lut colour grade film mood contact sheet choose by eye',
      () => ask('looks'),
    ],
    [
      'Match colours…',
      'with what lies behind, by Wheels',
      'same colours as the background blend in belong together fit',
      matchColours,
    ],
    ['Copy its grade', 'to paste on another layer', 'copy this look colours style', grades.copy],
    ['Paste a grade', 'that was copied', 'paste look colours same as', grades.paste],
  ];
  const ofClip: Command[] = [
    ['Play backwards', layer.name, 'reverse rewind back to front', () => edits.editLayer(reverseLayer)],
    [
      'Freeze from here',
      'holds this frame',
      'freeze frame hold stop the clip still pause',
      () => edits.editLayer(freezeHere),
    ],
    [
      layer.sound.muted ? 'Unmute' : 'Mute',
      layer.name,
      'silence no sound audio off quiet',
      () => edits.editLayer((project, at) => setMuted(project, at, !layer.sound.muted)),
    ],
  ];
  return entries([...general, ...keep, ...(bench.size ? ofPicture : []), ...(clip ? ofClip : [])]);
}

/** Masks and tracks that can be added to the chosen layer. */
export function maskAndTrackEntries(): Entry[] {
  const bench = useBench();
  const { layer } = bench;
  if (!layer || !bench.size) return [];
  const masking = useMasking();
  const tracking = useTracking();
  const drawn = (act: () => void) => () => {
    masking.show();
    act();
  };
  return [
    ...entries(
      [
        ...OFFERED_MASKS.map(({ title, help, words, kind, tool }): Command => [
          `${title} mask`,
          help,
          words,
          drawn(() => masking.addShape(kind, tool)),
        ]),
        [
          'Smart selection',
          'strokes over what to keep and what to drop',
          SELECTION_WORDS,
          drawn(() => masking.addSelection()),
        ],
      ],
      'mask',
    ),
    ...entries(
      stockOf(layer)
        ? OFFERED_TRACKS.map(({ title, help, words, kind }): Command => [
            `${title} track`,
            help,
            words,
            () => {
              tracking.show();
              tracking.add(kind);
            },
          ])
        : [],
      'track',
    ),
  ];
}
