import { tinykeys } from 'tinykeys';
import { onBeforeUnmount, onMounted } from 'vue';
import { ask } from '../base/asks';
import { rangeOf, setRange, toggleMarker } from '../../core/document/edits/markers';
import { slipLayer } from '../../core/document/edits/time';
import { VIEWS } from '../stores/viewing';
import { usePlayhead } from '../stores/playhead';
import { useViewing } from '../stores/viewing';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useCompare } from '../stores/compare';
import { useMasking } from '../stores/masking';
import { useTracking } from '../stores/tracking';
import { usePlayer } from '../stores/player';
import { useReady } from '../stores/ready';
import { useProject } from '../stores/project';
import { useRows } from '../stores/rows';
import { useSelection } from '../stores/selection';
import { trimHere } from '../time/actions';

export interface Shortcut {
  keys: string;
  /** as people read it */
  shown: string;
  does: string;
  /** what it is also wished for by */
  words?: string;
  run(): void;
}

const PANELS = ['Stock', 'Viewer', 'Passes', 'Dials', 'Time'];
const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled):not([tabindex="-1"]), select:not(:disabled), [tabindex="0"]';
/** Puts the focus on the first thing in the next panel that can have it. */
function nextPanel(by: 1 | -1): void {
  const panels = PANELS.map((name) => document.querySelector<HTMLElement>(`section[aria-label="${name}"]`));
  const now = panels.findIndex((panel) => panel?.contains(document.activeElement));
  for (let step = 1; step <= panels.length; step++) {
    const at = now < 0 ? (by > 0 ? step - 1 : panels.length - step) : now + by * step;
    const target =
      panels[((at % panels.length) + panels.length) % panels.length]?.querySelector<HTMLElement>(FOCUSABLE);
    if (target) return target.focus();
  }
}

/** The one table of shortcuts. */
export function shortcutTable(): Shortcut[] {
  const bench = useBench();
  const playhead = usePlayhead();
  const viewing = useViewing();
  const edits = useEdits();
  const masking = useMasking();
  const tracking = useTracking();
  const player = usePlayer();
  const ready = useReady();
  const project = useProject();
  const selection = useSelection();
  const slip = (by: number) => edits.editLayer((document, at) => slipLayer(document, at, by));
  const mark = () =>
    bench.shot &&
    project.edit(toggleMarker(project.current(), bench.shot.id, { at: playhead.frame, name: '', colour: 'sand' }));
  const range = (end: 'from' | 'to') => {
    if (!bench.shot) return;
    const now = rangeOf(bench.shot);
    project.edit(
      setRange(
        bench.shot.id,
        end === 'from'
          ? { from: playhead.frame, to: Math.max(playhead.frame + 1, now.to) }
          : { from: Math.min(now.from, playhead.frame), to: playhead.frame + 1 },
      ),
    );
  };
  return [
    { keys: 'Space', shown: 'Space', does: 'Play or stop', words: 'pause watch preview', run: player.toggle },
    { keys: 'ArrowLeft', shown: '←', does: 'One frame back', run: () => playhead.seek(playhead.frame - 1) },
    { keys: 'ArrowRight', shown: '→', does: 'One frame on', run: () => playhead.seek(playhead.frame + 1) },
    {
      keys: 'Shift+ArrowLeft',
      shown: 'Shift+←',
      does: 'Ten frames back',
      run: () => playhead.seek(playhead.frame - 10),
    },
    {
      keys: 'Shift+ArrowRight',
      shown: 'Shift+→',
      does: 'Ten frames on',
      run: () => playhead.seek(playhead.frame + 10),
    },
    {
      keys: 'Home',
      shown: 'Home',
      does: 'First frame that plays',
      words: 'go to the beginning start',
      run: () => playhead.seek(ready.range.from),
    },
    {
      keys: 'End',
      shown: 'End',
      does: 'Last frame that plays',
      words: 'go to the end',
      run: () => playhead.seek(ready.range.to - 1),
    },
    {
      keys: 'z',
      shown: 'Z',
      does: 'Trim the layer’s start to the playhead',
      words: 'cut off the beginning shorten',
      run: () => trimHere('start'),
    },
    {
      keys: 'x',
      shown: 'X',
      does: 'Trim the layer’s end to the playhead',
      words: 'cut off the end shorten',
      run: () => trimHere('end'),
    },
    {
      keys: 'Delete',
      shown: 'Delete',
      does: 'Delete the chosen vertices, mask, keyframes, pass or layers',
      run: () => (masking.open && masking.mask && !selection.keys.length ? masking.remove() : selection.remove()),
    },
    {
      keys: 'Shift+Delete',
      shown: 'Shift+Delete',
      does: 'Delete the chosen layers and close the gap',
      run: () => selection.remove(true),
    },
    {
      keys: 'Escape',
      shown: 'Esc',
      does: 'Stop drawing (the path stays), or choose nothing',
      run: () => (masking.escape() ? undefined : (selection.keys = [])),
    },
    {
      keys: 'Enter',
      shown: 'Enter',
      does: 'Close the path that is being drawn, or type the chosen title on the picture',
      run: () => (!masking.open ? viewing.typeText() : masking.tool === 'points' && masking.closeDrawn()),
    },
    {
      keys: 's',
      shown: 'S',
      does: 'Split the layer at the playhead',
      words: 'cut the clip in two divide razor',
      run: selection.split,
    },
    { keys: 'd', shown: 'D', does: 'Duplicate the layer', run: () => selection.duplicate(0) },
    { keys: '$mod+g', shown: 'Ctrl+G', does: 'Group the chosen layers', run: selection.group },
    { keys: '$mod+Shift+g', shown: 'Ctrl+Shift+G', does: 'Ungroup', run: selection.apart },
    {
      keys: '$mod+a',
      shown: 'Ctrl+A',
      does: 'Choose all layers, or all keyframes of the layer when some are chosen',
      run: selection.all,
    },
    {
      keys: '$mod+x',
      shown: 'Ctrl+X',
      does: 'Cut keyframes, a pass or layers',
      run: () => (selection.copy(), selection.remove()),
    },
    { keys: '$mod+c', shown: 'Ctrl+C', does: 'Copy keyframes, a pass or layers', run: selection.copy },
    {
      keys: '$mod+v',
      shown: 'Ctrl+V',
      does: 'Paste at the playhead, a pass after the chosen one',
      run: () => selection.paste(),
    },
    { keys: '$mod+Shift+v', shown: 'Ctrl+Shift+V', does: 'Paste keyframes reversed', run: () => selection.paste(true) },
    { keys: 'Alt+ArrowLeft', shown: 'Alt+←', does: 'Slip the source one frame back', run: () => slip(-1) },
    { keys: 'Alt+ArrowRight', shown: 'Alt+→', does: 'Slip the source one frame on', run: () => slip(1) },
    {
      keys: '[',
      shown: '[',
      does: 'Move the chosen keyframes or layers one frame back',
      run: () => selection.nudge(-1),
    },
    { keys: ']', shown: ']', does: 'Move the chosen keyframes or layers one frame on', run: () => selection.nudge(1) },
    { keys: ',', shown: ',', does: 'Previous keyframe of the layer', run: () => selection.toNeighbour(-1) },
    { keys: '.', shown: '.', does: 'Next keyframe of the layer', run: () => selection.toNeighbour(1) },
    { keys: 'n', shown: 'N', does: 'Marker at the playhead', words: 'mark beat note label comment', run: mark },
    {
      keys: 'i',
      shown: 'I',
      does: 'In point at the playhead',
      words: 'work area range from here start',
      run: () => range('from'),
    },
    {
      keys: 'o',
      shown: 'O',
      does: 'Out point at the playhead',
      words: 'work area range until here end',
      run: () => range('to'),
    },
    {
      keys: 'Shift+i',
      shown: 'Shift+I',
      does: 'Clear the in and out points',
      run: () => bench.shot && project.edit(setRange(bench.shot.id, null)),
    },
    {
      keys: 'c',
      shown: 'C',
      does: 'Grow the rows of the layer into curves, or let them rest',
      run: () => bench.layer && useRows().toggleCurves(bench.layer),
    },
    { keys: 'j', shown: 'J', does: 'Play backwards, faster each time', run: () => player.shuttle(-1) },
    { keys: 'k', shown: 'K', does: 'Stop', run: () => player.shuttle(0) },
    { keys: 'l', shown: 'L', does: 'Play forwards, faster each time', run: () => player.shuttle(1) },
    {
      keys: 'v',
      shown: 'V',
      does: 'Next view',
      run: () =>
        (viewing.view = VIEWS[(VIEWS.findIndex((view) => view.name === viewing.view) + 1) % VIEWS.length]!.name),
    },
    ...VIEWS.map((view, i) => ({
      keys: `${i + 1}`,
      shown: `${i + 1}`,
      does: `View: ${view.label}`,
      run: () => void (viewing.view = view.name),
    })),
    { keys: 'b', shown: 'B', does: 'Hold: the picture from before', run: () => useCompare().hold() },
    { keys: 'f', shown: 'F', does: 'Fit the picture into the viewer', run: () => void ask('fit') },
    { keys: 'Shift+f', shown: 'Shift+F', does: 'Fit the shot into the time panel', run: () => void ask('fit-time') },
    { keys: '+', shown: '+', does: 'Zoom in', run: () => void ask('zoom-in') },
    { keys: '-', shown: '−', does: 'Zoom out', run: () => void ask('zoom-out') },
    {
      keys: 'a',
      shown: 'A',
      does: 'Masks of the layer',
      words: 'mask roto hide part of the picture',
      run: () => masking.show(),
    },
    {
      keys: 't',
      shown: 'T',
      does: 'Tracks of the layer’s clip',
      words: 'track motion tracking follow object moves stick',
      run: () => tracking.show(),
    },
    { keys: 'e', shown: 'E', does: 'Colour key: open or add', run: () => edits.openPass('colour-key') },
    { keys: 'p', shown: 'P', does: 'Place', run: () => bench.show('place') },
    { keys: 'g', shown: 'G', does: 'Adjust: open or add', run: () => edits.openPass('adjust') },
    { keys: '$mod+k', shown: 'Ctrl+K', does: 'Search passes and commands', run: () => void ask('search') },
    { keys: '$mod+z', shown: 'Ctrl+Z', does: 'Undo', words: 'go back mistake revert', run: () => void project.undo() },
    {
      keys: '$mod+Shift+z',
      shown: 'Ctrl+Shift+Z',
      does: 'Redo',
      words: 'again forward',
      run: () => void project.redo(),
    },
    { keys: '$mod+y', shown: 'Ctrl+Y', does: 'Redo', run: () => void project.redo() },
    { keys: 'F6', shown: 'F6', does: 'Go to the next panel', run: () => nextPanel(1) },
    { keys: 'Shift+F6', shown: 'Shift+F6', does: 'Go to the previous panel', run: () => nextPanel(-1) },
    {
      keys: '?',
      shown: '?',
      does: 'List of shortcuts',
      words: 'keyboard shortcuts keys hotkeys help',
      run: () => void ask('shortcuts'),
    },
  ];
}

/** Keys that belong to what has the focus: all in a dialog or menu; in a field those that are typed or move within it. */
function taken(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  if (target?.closest('[role=dialog], .v-overlay__content')) return true;
  return !event.ctrlKey && !event.metaKey && !!target?.closest('input:not([type=range], [type=checkbox]), select');
}

/** Binds the table while the calling component lives. Keys typed into fields and dialogs are left alone. */
export function useShortcuts(): void {
  let unbind = () => {};
  onMounted(() => {
    const bindings = shortcutTable().map(({ keys, run }) => {
      const handle = (event: KeyboardEvent) => {
        if (taken(event)) return;
        const onButton =
          (keys === 'Space' || keys === 'Enter') && (event.target as HTMLElement).closest('button, a, [role=button]');
        if (onButton && (keys === 'Enter' || onButton.matches(':focus-visible'))) return;
        event.preventDefault();
        run();
      };
      // signs that need Shift on some keyboards are matched by what they type
      return [keys.length === 1 && !/[a-z0-9]/.test(keys) ? `Shift+${keys}` : keys, handle] as const;
    });
    const plain = bindings
      .filter(([keys]) => /^Shift\+[^a-zA-Z]$/.test(keys))
      .map(([keys, handle]) => [keys.slice(6), handle] as const);
    unbind = tinykeys(
      window,
      Object.fromEntries(
        [...bindings, ...plain].map(([keys, handle]) => [
          keys === 'Shift++' ? 'Shift+Equal' : keys === '+' ? 'Equal' : keys,
          handle,
        ]),
      ),
    );
  });
  // a button that was clicked keeps no focus, so that Space plays instead of clicking it again; nor a choice that was made by pointer, so that letters are shortcuts again
  let chosen = false;
  const stay = () => (chosen = false);
  const letGo = (event: MouseEvent) => {
    chosen = event.detail > 0 && !!(event.target as HTMLElement).closest('[role=option]');
    const focused = document.activeElement;
    if (event.detail > 0 && focused instanceof HTMLButtonElement && !focused.closest('.v-overlay__content'))
      focused.blur();
  };
  // a list gives the focus back while it closes, once or twice and at its leisure: what is typed meanwhile does not wait for it
  const passOn = (event: KeyboardEvent) => {
    if (!chosen || event.key === 'Tab' || !event.isTrusted) return;
    const target = event.target as HTMLElement;
    const inList = target.closest('.v-select, .v-overlay__content:has([role=listbox])');
    if (!inList || document.querySelector('.v-select [aria-expanded=true], .v-dialog.v-overlay--active')) return;
    event.stopImmediatePropagation();
    target.blur();
    if (!document.body.dispatchEvent(new KeyboardEvent('keydown', event))) event.preventDefault();
  };
  onMounted(() => {
    addEventListener('click', letGo, true);
    addEventListener('pointerdown', stay, true);
    addEventListener('keydown', passOn, true);
  });
  onBeforeUnmount(() => {
    unbind();
    removeEventListener('click', letGo, true);
    removeEventListener('pointerdown', stay, true);
    removeEventListener('keydown', passOn, true);
  });
}
