// Opens media and project files: facts, exact frames, decoded and mixed sound; what is packed in a project.
import * as Comlink from 'comlink';
import { VideoSampleSink, type Input } from 'mediabunny';
import { JackplaneError } from '../../core/errors';
import type { Project } from '../../core/document/schema';
import type { FetchedPicture } from '../../core/execute/execute';
import { readProjectFile, writeProjectFile } from '../../core/formats/project-file';
import { mix, type Pcm, type SoundItem } from '../../core/sound/mix';
import type { Probe } from '../types';
import { ClipReader, FrameStore } from './clip-reader';
import { imageType, readStill, type Still } from './images';
import { openInput, probe } from './probe';
import { readSound } from './sound';
import { carryErrors } from '../thrown';

carryErrors();

interface OpenStock {
  file: Blob;
  name: string;
  input?: Input;
  reader?: Promise<ClipReader>;
  still?: Promise<Still>;
  sound?: Promise<Pcm | null>;
}

const FRAME_BYTES = 256e6;
const store = new FrameStore(FRAME_BYTES);
const open = new Map<string, OpenStock>();

function stockOf(id: string, name: string): OpenStock {
  const stock = open.get(id);
  if (!stock) throw new JackplaneError('missing-media', `The media of “${name}” is missing.`, 'Link it again from the stock list.');
  return stock;
}

async function readerOf(id: string, stock: OpenStock): Promise<ClipReader> {
  stock.input ??= openInput(stock.file);
  const track = await stock.input.getPrimaryVideoTrack();
  if (!track) throw new JackplaneError('bad-media', `“${stock.name}” has no picture.`, 'Link another file to it.');
  const sink = new VideoSampleSink(track);
  return new ClipReader(id, (seconds) => sink.samples(seconds), store);
}

async function soundOf(stock: OpenStock): Promise<Pcm | null> {
  stock.input ??= openInput(stock.file);
  const track = await stock.input.getPrimaryAudioTrack();
  return track ? readSound(track, stock.name) : null;
}

const api = {
  open(id: string, file: Blob, name: string): void {
    if (!open.has(id)) open.set(id, { file, name });
  },

  async close(id: string): Promise<void> {
    const stock = open.get(id);
    open.delete(id);
    store.drop(id);
    await (await stock?.reader?.catch(() => undefined))?.close();
    stock?.input?.dispose();
  },

  probe: (file: File, progress: (share: number) => void): Promise<Probe> => probe(file, progress),

  /** A frame as straight RGBA, transferred. */
  async frame(id: string, name: string, seconds: number): Promise<FetchedPicture> {
    const stock = stockOf(id, name);
    const head = stock.input ? null : imageType(new Uint8Array(await stock.file.slice(0, 16).arrayBuffer()));
    const picture = head
      ? await (stock.still ??= readStill(stock.file, stock.name, head))
      : await (await (stock.reader ??= readerOf(id, stock))).frameAt(seconds);
    const data = picture.data.slice();
    return Comlink.transfer({ data, width: picture.width, height: picture.height }, [data.buffer]);
  },

  /** Mixed stereo. Missing sound is silent. */
  async mix(items: SoundItem[], from: number, length: number, sampleRate: number): Promise<[Float32Array, Float32Array]> {
    const clips = new Map<string, Pcm>();
    for (const item of items) {
      const stock = open.get(item.stock);
      const pcm = stock ? await (stock.sound ??= soundOf(stock)) : null;
      if (pcm) clips.set(item.stock, pcm);
    }
    const out = mix(items, clips, from, length, sampleRate);
    return Comlink.transfer(out, [out[0].buffer, out[1].buffer]);
  },

  /** What a project file holds, its media by stock id. @throws JackplaneError bad-project */
  async unpack(file: File): Promise<{ project: Project; media: Map<string, Blob> }> {
    const { project, media } = readProjectFile(new Uint8Array(await file.arrayBuffer()), file.name);
    return { project, media: new Map([...media].map(([stock, data]) => [stock, new Blob([data as Uint8Array<ArrayBuffer>])])) };
  },

  /** A project file of a project and its media by stock id. */
  async pack(project: Project, media: ReadonlyMap<string, Blob>): Promise<Blob> {
    const packed = new Map<string, Uint8Array>();
    for (const [stock, file] of media) packed.set(stock, new Uint8Array(await file.arrayBuffer()));
    return new Blob([writeProjectFile(project, packed)], { type: 'application/zip' });
  },

  /** Serves frames to another worker. */
  connect(port: MessagePort): void {
    Comlink.expose(api, port);
  },
};

export type DecodeApi = typeof api;
Comlink.expose(api);
