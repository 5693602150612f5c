import { Uint8ArrayReader, Writer, ZipReader, type FileEntry } from '@zip.js/zip.js';

/** Why an archive is not unpacked: it is none or is damaged, or it would unpack to more than is reasonable. */
export type ArchiveFault = 'damaged' | 'too much';

export class ArchiveError extends Error {
  constructor(readonly fault: ArchiveFault) {
    super(`The archive is ${fault}.`);
  }
}

/** Limits for archives from outside. */
export interface ArchiveLimits {
  /** Entries. */
  readonly entries: number;
  /** Bytes of everything unpacked; and of a small archive, which may unpack to so much whatever its ratio. */
  readonly unpacked: number;
  readonly small: number;
  /** Unpacked bytes for one packed. */
  readonly ratio: number;
}

/** Collects what an entry unpacks to, and stops as soon as that is more than it was said to be. */
class Bounded extends Writer<Uint8Array> {
  private readonly bytes: Uint8Array;
  private at = 0;

  constructor(size: number) {
    super();
    this.bytes = new Uint8Array(size);
  }

  override async writeUint8Array(chunk: Uint8Array): Promise<void> {
    if (this.at + chunk.length > this.bytes.length) throw new ArchiveError('damaged');
    this.bytes.set(chunk, this.at);
    this.at += chunk.length;
  }

  override async getData(): Promise<Uint8Array> {
    if (this.at !== this.bytes.length) throw new ArchiveError('damaged');
    return this.bytes;
  }
}

/** Bytes of a local header without its name and extra field. */
const HEADER = 30;

/**
 * A zip archive from outside, read with suspicion: what it says of its entries is checked before anything is unpacked
 * (number, sizes, ratio, no two in the same place), and what is unpacked is checked against what was said (size, CRC).
 */
export class Archive {
  private constructor(private readonly entries: ReadonlyMap<string, FileEntry>) {}

  /** @throws ArchiveError */
  static async open(bytes: Uint8Array, limits: ArchiveLimits): Promise<Archive> {
    const found = new Map<string, FileEntry>();
    try {
      const reader = new ZipReader(new Uint8ArrayReader(bytes), { useWebWorkers: false });
      let unpacked = 0;
      for await (const entry of reader.getEntriesGenerator()) {
        if (found.size >= limits.entries) throw new ArchiveError('too much');
        unpacked += entry.uncompressedSize;
        if (unpacked > Math.min(limits.unpacked, limits.small + limits.ratio * bytes.length)) {
          throw new ArchiveError('too much');
        }
        if (entry.directory || entry.encrypted || found.has(entry.filename)) throw new ArchiveError('damaged');
        found.set(entry.filename, entry);
      }
      let free = 0;
      for (const entry of [...found.values()].sort((a, b) => a.offset - b.offset)) {
        if (entry.offset < free) throw new ArchiveError('damaged');
        free = entry.offset + HEADER + entry.compressedSize;
      }
      if (free > bytes.length) throw new ArchiveError('damaged');
    } catch (error) {
      if (error instanceof ArchiveError) throw error;
      throw new ArchiveError('damaged');
    }
    return new Archive(found);
  }

  get names(): string[] {
    return [...this.entries.keys()];
  }

  /**
   * Unpacks an entry; undefined when there is none of that name.
   * @param most bytes that it may have
   * @throws ArchiveError
   */
  async read(name: string, most: number): Promise<Uint8Array | undefined> {
    const entry = this.entries.get(name);
    if (!entry) return undefined;
    if (entry.uncompressedSize > most) throw new ArchiveError('too much');
    try {
      return await entry.getData(new Bounded(entry.uncompressedSize), {
        checkSignature: true,
        checkOverlappingEntry: true,
        useWebWorkers: false,
      });
    } catch (error) {
      if (error instanceof ArchiveError) throw error;
      throw new ArchiveError('damaged');
    }
  }
}
