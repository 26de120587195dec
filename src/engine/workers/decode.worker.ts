// Exact frames of open media.
import * as Comlink from 'comlink';
import { VideoSampleSink, type Input } from 'mediabunny';
import { JackplaneError } from '../../core/base/errors';
import type { FetchedPicture } from '../../core/picture/fetched';
import { carryErrors } from '../thrown';
import { tooLong } from '../time-limit';
import { AnimatedReader } from './animated';
import { ClipReader, FrameStore, sharedRoom } from './clip-reader';
import { imageType, isAnimated, readStill } from './images';
import { openInput, startOf } from './probe';

carryErrors();

interface FrameReader {
  frameAt(seconds: number): Promise<FetchedPicture>;
  close(): Promise<void>;
}
interface OpenStock {
  file: Blob;
  name: string;
  input?: Input;
  reader?: Promise<FrameReader>;
  still?: Promise<FetchedPicture>;
}
/** Told to the page before something is read, so that it knows what a decoder that stopped answering was at. */
export interface DecoderNews {
  reading: string;
}
const tell = (reading: string): void => self.postMessage({ reading } satisfies DecoderNews);

let store = new FrameStore(256e6);
const open = new Map<string, OpenStock>();
/** stock that stopped a decoder before */
const refused = new Map<string, string>();

function stockOf(id: string, name: string): OpenStock {
  if (refused.has(id)) throw tooLong(name);
  const stock = open.get(id);
  if (!stock)
    throw new JackplaneError(
      'missing-media',
      `The media of “${name}” is missing.`,
      'Link it again from the stock list.',
    );
  return stock;
}

async function readerOf(id: string, stock: OpenStock): Promise<FrameReader> {
  if (await isAnimated(stock.file)) return new AnimatedReader(id, stock.file, stock.name, store);
  stock.input ??= openInput(stock.file);
  const track = await stock.input.getPrimaryVideoTrack();
  if (!track) throw new JackplaneError('bad-media', `“${stock.name}” has no picture.`, 'Link another file to it.');
  const sink = new VideoSampleSink(track);
  // the clip's own time may begin late; the layer's begins with the clip
  const start = await startOf(stock.input);
  return new ClipReader(id, (seconds) => sink.samples(seconds + start), store, start, stock.name);
}

/** A still in memory that is read without a copy. */
async function stillOf({ file, name }: OpenStock, type: string): Promise<FetchedPicture> {
  const still = await readStill(file, name, type);
  const data = new Uint8ClampedArray(sharedRoom(still.data.length));
  data.set(still.data);
  return { ...still, data };
}

const api = {
  start(bytes: number): void {
    store = new FrameStore(bytes);
  },

  /** Answers as long as this worker is not stuck. */
  pulse: (): boolean => true,

  /** Lets go of frames that nobody has open. */
  rest(): void {
    for (const id of store.clips()) if (!open.has(id)) store.drop(id);
  },

  /** Does not open stock that stopped a decoder before. */
  refuse(id: string, name: string): void {
    refused.set(id, name);
  },

  open(id: string, file: Blob, name: string): void {
    if (!open.has(id)) open.set(id, { file, name });
  },

  async close(id: string): Promise<void> {
    const stock = open.get(id);
    open.delete(id);
    refused.delete(id);
    store.drop(id);
    await (await stock?.reader?.catch(() => undefined))?.close();
    stock?.input?.dispose();
  },

  /** A frame, in memory that is shared, else transferred. */
  async frame(id: string, name: string, seconds: number): Promise<FetchedPicture> {
    const stock = stockOf(id, name);
    tell(id);
    const head = stock.input || (stock.reader && !stock.still) ? null : await imageType(stock.file);
    const still = head && (stock.still || !(await isAnimated(stock.file)));
    const picture = still
      ? await (stock.still ??= stillOf(stock, head))
      : await (await (stock.reader ??= readerOf(id, stock))).frameAt(seconds);
    const { width, height, planes } = picture;
    if (picture.data.buffer instanceof ArrayBuffer) {
      const data = picture.data.slice();
      return Comlink.transfer({ data, width, height, planes }, [data.buffer as ArrayBuffer]);
    }
    return { data: picture.data, width, height, planes };
  },

  /** The file of stock that is open. @throws JackplaneError missing-media */
  file: (id: string, name: string): Blob => stockOf(id, name).file,

  /** Serves frames to another worker. */
  connect(port: MessagePort): void {
    Comlink.expose(api, port);
  },
};

export type DecodeApi = typeof api;
Comlink.expose(api);
