import { computed, reactive, ref } from 'vue';
import { JackplaneError, sentenceOf } from '../../core/base/errors';
import { addTrack, replaceSamples } from '../../core/document/edits/tracks';
import { quadAbout, type Quad, type Track, type TrackId } from '../../core/document/track';
import { safeName, stockName } from '../../core/formats/names';
import { readTrackCsv, readTrackJson, trackCsv, trackJson, type TrackFile } from '../../core/formats/track-file';
import { packSamples, samplesOf, withSamples, type Sample } from '../../core/track/samples';
import { averaged, filled, joined, reversedSamples, smoothedSamples } from '../../core/track/work';
import { newId } from '../base/ids';
import { useProject } from '../stores/project';
import { download } from '../stores/renders';
import { useTracking } from '../stores/tracking';

const MOST_BYTES = 30e6;
/** Half the side of the pattern that a track from a file is given. */
const HALF = 20;

/** Tracks to files and from them, and what can be done with the chosen one as a whole. */
export function useTrackFiles() {
  const store = useProject();
  const tracking = useTracking();
  const problem = ref<string | null>(null);

  /** The tracks of the chosen one's kind and clip, it first. */
  const alike = computed(() =>
    tracking.track
      ? [
          tracking.track,
          ...tracking.tracks.filter(
            (item) => item.kind === tracking.track!.kind && item.id !== tracking.trackId && item.samples.rows,
          ),
        ]
      : [],
  );

  const named = (ending: string): string => safeName(`${tracking.track!.name}${ending}`);
  const whole = () => ({ kind: tracking.track!.kind, samples: tracking.samples });
  const saveCsv = (): void => download(new Blob([trackCsv(whole())], { type: 'text/csv' }), named('.csv'));
  const saveJson = (): void =>
    download(new Blob([trackJson(tracking.track!.name, whole())], { type: 'application/json' }), named('.track.json'));

  async function open(file: File): Promise<void> {
    problem.value = null;
    try {
      if (file.size > MOST_BYTES)
        throw new JackplaneError(
          'unsupported',
          `“${file.name}” is larger than ${MOST_BYTES / 1e6} MB.`,
          'Choose a shorter track.',
        );
      const text = await file.text();
      const read = /\.json$/i.test(file.name) ? readTrackJson(text, file.name) : readTrackCsv(text, file.name);
      take(read, read.name ?? stockName(file.name));
    } catch (error) {
      problem.value = sentenceOf(error);
    }
  }
  function take({ kind, rows }: TrackFile, name: string): void {
    const start = Math.min(...rows.keys());
    const { points } = rows.get(start)!;
    const [a, b, c, d] = points.map(([x, y]) => [x, y] as [number, number]) as [
      [number, number],
      [number, number],
      [number, number],
      [number, number],
    ];
    const patterns: Quad[] =
      kind === 'plane'
        ? [[a, b, c, d]]
        : kind === 'patch'
          ? [[a, b, c, [a[0] + c[0] - b[0], a[1] + c[1] - b[1]]]]
          : kind === 'pair'
            ? [quadAbout(a, HALF, HALF), quadAbout(b, HALF, HALF)]
            : [quadAbout(a, HALF, HALF)];
    insert({ kind, start, patterns, name, rows, fixed: [] });
  }
  function insert(
    own: Pick<Track, 'kind' | 'start' | 'patterns' | 'name' | 'fixed'> & { rows: ReadonlyMap<number, Sample> },
  ): void {
    const { rows, ...rest } = own;
    const id = newId<TrackId>();
    store.edit(
      addTrack({
        ...rest,
        name: tracking.freeName(rest.name),
        id,
        stock: tracking.clip!.id,
        rate: tracking.track?.rate ?? tracking.rate,
        reach: tracking.track?.reach ?? HALF * 2,
        samples: packSamples(withSamples({ first: 0, rows: [] }, rows), own.kind),
      }),
    );
    tracking.show(id);
  }
  function copy(): void {
    const { kind, start, patterns, name, fixed } = tracking.track!;
    const rows = new Map(
      tracking.samples.rows.flatMap((row, i) => (row ? [[tracking.samples.first + i, row] as const] : [])),
    );
    insert({ kind, start, patterns, name: `${name} copy`, fixed, rows });
  }
  const replace = (rows: ReadonlyMap<number, Sample>, name: string, now?: (frame: number) => number): void =>
    store.edit(replaceSamples(store.current(), tracking.track!.id, rows, name, now));

  return reactive({
    problem,
    alike,
    saveCsv,
    saveJson,
    open,
    copy,
    fill: () => replace(filled(tracking.samples), 'Fill gaps'),
    smooth: (frames: number) => replace(smoothedSamples(tracking.samples, frames), 'Smooth'),
    reverse: () =>
      replace(reversedSamples(tracking.samples, tracking.frames), 'Reverse', (frame) => tracking.frames - 1 - frame),
    average: () => replace(averaged(alike.value.map(samplesOf)), 'Average'),
    join: () => replace(joined([tracking.samples, ...alike.value.slice(1).map(samplesOf)]), 'Join'),
  });
}
