import { GRADE_LOOKS } from '../../core/passes/grade/looks';
import { OFFERED } from '../../core/passes/registry';
import { SWARMS } from '../../core/sources/swarms';
import { FORMS, shape } from '../../core/sources/shape';
import { usePlayhead } from '../stores/playhead';
import { useEdits } from '../stores/edits';
import { useBench } from '../stores/bench';
import { useGrades } from '../stores/grades';
import { useJigs } from '../stores/jigs';
import { useProject } from '../stores/project';
import { READY_MADE } from '../../core/document/edits/ready-made';
import { ARRANGEMENTS } from '../../core/document/edits/arrangements';
import { BETWEEN } from '../../core/document/edits/passages';
import { FRAMING_MOVES } from '../../core/place/framing';
import { MADE, moveOver, stackMade, stackReadyMade, stackStock, stackSwarm } from '../time/actions';
import { arrangeChosen } from '../time/arrange';
import type { Entry } from './entry';

/** Passes for the chosen layer. */
export function passEntries(): Entry[] {
  const bench = useBench();
  const edits = useEdits();
  if (!bench.layer || !bench.size) return [];
  return OFFERED.map(({ title, words, pass, values }) => ({
    kind: values ? pass.title : 'pass',
    title,
    more: pass.help,
    words: words.join(' ; '),
    // a key is nothing to see before its screen is picked
    ...(pass.group === 'cut out' ? {} : { tries: { pass: pass.type, values } }),
    run: () => edits.insertPass(pass.type, values),
  }));
}

/** What forms are also wished for by. */
const FORM_WORDS: Readonly<Record<string, string>> = {
  rectangle: 'box ; bar ; frame ; card',
  ellipse: 'circle ; disc ; round ; dot',
  polygon: 'triangle ; hexagon ; pentagon',
  star: 'badge ; burst',
  line: 'underline ; stroke ; draw a line ; write on ; dashes',
  arrow: 'pointer ; sign',
  path: 'pen ; draw by hand ; handwriting ; freehand shape ; curve',
};
/** What the project has: layers, shots, markers, stock, its own looks; and layers that need none of it. */
export function thingEntries(): Entry[] {
  const bench = useBench();
  const playhead = usePlayhead();
  const jigs = useJigs();
  const store = useProject();
  const grades = useGrades();
  const { shot, layer } = bench;
  const shots = (store.project?.shots ?? []).filter((item) => !item.within);
  return [
    ...(shot ? MADE : []).map((source) => ({
      kind: 'layer to add',
      title: source.title,
      more: source.help,
      words: source.words.join(' ; '),
      run: () => stackMade(source.type),
    })),
    ...(shot ? Object.entries(FORMS) : []).map(([form, values]) => ({
      kind: 'layer to add',
      title: form === 'path' ? 'Free path' : `${form[0]!.toUpperCase()}${form.slice(1)}`,
      more: shape.help,
      words: FORM_WORDS[form] ?? '',
      run: () => stackMade(shape.type, { form, ...values }, form === 'path' ? 'drawing' : form),
    })),
    ...(shot ? SWARMS : []).map((swarm) => ({
      kind: 'layer to add',
      title: swarm.title,
      more: swarm.help,
      words: `particles ; ${swarm.words}`,
      run: () => stackSwarm(swarm),
    })),
    ...(shot ? READY_MADE : []).map((ready) => ({
      kind: 'layer to add',
      title: ready.title,
      more: ready.help,
      words: ready.words,
      run: () => stackReadyMade(ready),
    })),
    ...(shot ? [...jigs.ofLayers, ...(layer && bench.size ? jigs.ofParts : [])] : []).map((jig) => ({
      kind: 'own jig',
      title: jig.name,
      more: jig.kind === 'parts' ? `for ${layer!.name}` : 'put in from the playhead on',
      words: 'jig',
      run: () => jigs.use(jig),
    })),
    ...(layer ? [...ARRANGEMENTS, ...BETWEEN] : []).map((arrangement) => ({
      kind: BETWEEN.includes(arrangement) ? 'between two layers' : 'for chosen layers',
      title: arrangement.title,
      more: arrangement.help,
      words: arrangement.words,
      run: () => void arrangeChosen(arrangement),
    })),
    ...(layer && bench.size ? FRAMING_MOVES : []).map((move) => ({
      kind: 'move over the picture',
      title: move.label,
      more: `over ${layer!.name}, from its first frame to its last`,
      words: 'framing pan and zoom camera move',
      run: () => moveOver(move.name),
    })),
    ...(shot?.layers ?? []).map((item) => ({
      kind: 'layer',
      title: item.name,
      more: 'choose it',
      words: '',
      run: () => bench.choose(item.id),
    })),
    ...(shot?.markers ?? [])
      .filter(({ name }) => name)
      .map(({ name, at }) => ({
        kind: 'marker',
        title: name,
        more: `go to frame ${at}`,
        words: '',
        run: () => playhead.seek(at),
      })),
    ...shots
      .filter(({ id }) => id !== shot?.id)
      .map(({ id, name }) => ({
        kind: 'shot',
        title: name,
        more: 'open it',
        words: '',
        run: () => bench.openShot(id),
      })),
    ...(store.project?.stock ?? []).map((item) => ({
      kind: 'stock',
      title: item.name,
      more: 'add to the shot',
      words: item.file,
      run: () => stackStock(item),
    })),
    ...(layer && bench.size ? GRADE_LOOKS : []).map((look) => ({
      kind: 'look',
      title: look.title,
      more: `for ${layer!.name}`,
      words: `look grade style ; ${look.words}`,
      run: () => grades.use(`Look ${look.title}`, grades.lookPasses(look)),
    })),
    ...(layer && bench.size ? grades.jigs : []).map((jig) => ({
      kind: 'own look',
      title: jig.name,
      more: `for ${layer!.name}`,
      words: 'look grade jig',
      run: () => grades.use(jig.name, jig.passes),
    })),
  ];
}
