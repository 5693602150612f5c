import type { Picture } from '@/core/picture/picture';

type Bytes = Uint8Array<ArrayBuffer>;

/** What of a painting can be sent out. */
export interface SentOut {
  /** Lends the picture of the painting as it is, whatever is looked at. */
  readonly plainly: <T>(render: (picture: Picture) => T) => T;
  readonly ppi: number;
  /** The painting's own file, with its strokes and photos. */
  readonly paintingFile: () => Promise<Bytes>;
}

/** A way to send a painting out. */
export interface ExportDefinition {
  /** What it is, as a painter chooses it. */
  readonly label: string;
  readonly extension: string;
  /** Media type (IANA). */
  readonly type: string;
  /** Whether a painting that was sent out so can be hung again with everything that it is. */
  readonly whole?: true;
  readonly make: (from: SentOut) => Bytes | Promise<Bytes>;
}
