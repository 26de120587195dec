import type { StreamTargetChunk } from 'mediabunny';

/** Bytes that are gathered before they become a part. */
const PART = 4 << 20;

/** A file that is written in parts: what is done is handed to the browser, which may keep it on disk, and may be written over. */
export class PartsFile {
  private readonly parts: { at: number; blob: Blob }[] = [];
  private gathered: Uint8Array<ArrayBuffer>[] = [];
  private gatheredBytes = 0;
  private end = 0;

  /** To be written to. Bytes that are skipped are zero. */
  readonly stream = new WritableStream<StreamTargetChunk>({ write: (chunk) => this.write(chunk) });

  write({ data, position }: Pick<StreamTargetChunk, 'data' | 'position'>): void {
    if (position > this.end) this.append(new Uint8Array(position - this.end));
    const over = data.subarray(0, Math.max(0, this.end - position));
    if (over.length) this.replace(position, over);
    if (over.length < data.length) this.append(data.slice(over.length));
  }

  /** The file as it is now. */
  blob(type: string): Blob {
    this.close();
    return new Blob(
      this.parts.map((part) => part.blob),
      { type },
    );
  }

  private append(data: Uint8Array<ArrayBuffer>): void {
    this.gathered.push(data);
    this.gatheredBytes += data.length;
    this.end += data.length;
    if (this.gatheredBytes >= PART) this.close();
  }

  private close(): void {
    if (!this.gatheredBytes) return;
    this.parts.push({ at: this.end - this.gatheredBytes, blob: new Blob(this.gathered) });
    this.gathered = [];
    this.gatheredBytes = 0;
  }

  /** Writes over what is there already: the parts that it touches are cut. */
  private replace(at: number, data: Uint8Array<ArrayBuffer>): void {
    this.close();
    const to = at + data.length;
    const touched = this.parts.filter((part) => part.at < to && part.at + part.blob.size > at);
    const [first, last] = [touched[0]!, touched.at(-1)!];
    const pieces = [
      { at: first.at, blob: first.blob.slice(0, at - first.at) },
      { at, blob: new Blob([data]) },
      { at: to, blob: last.blob.slice(to - last.at) },
    ].filter((part) => part.blob.size > 0);
    this.parts.splice(this.parts.indexOf(first), touched.length, ...pieces);
  }
}
