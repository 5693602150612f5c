/** Small things that painters share as files: JSON that says what it is, with its version and a schema. */
import { PainterError } from '@/core/errors';
import { z } from '@/core/schema';

const MOST_BYTES = 4 * 2 ** 20;

/** How one kind of them is written and read. */
export interface SharedFile<T> {
  encode(what: T): string;
  /** @throws PainterError with a sentence when it is no such file */
  decode(text: string): T;
}

/**
 * Describes one kind of them.
 * @param format that it names itself by
 * @param called what it is, as in "This is no set of tubes."
 * @param check what a schema cannot say; throws a PainterError
 */
export function sharedFile<S extends z.ZodObject>({
  format,
  version,
  called,
  schema,
  check,
}: {
  readonly format: string;
  readonly version: number;
  readonly called: string;
  readonly schema: S;
  readonly check?: (what: z.output<S>) => void;
}): SharedFile<z.output<S>> {
  const whole = z.strictObject({ format: z.literal(format), version: z.literal(version), ...schema.shape });
  const headed = z.looseObject({ format: z.literal(format), version: z.number() });
  return {
    encode: (what) => JSON.stringify({ format, version, ...what }, null, 1) + '\n',
    decode(text) {
      if (text.length > MOST_BYTES) throw new PainterError(`This file is too large for ${called}.`);
      let data: unknown;
      try {
        data = JSON.parse(text);
      } catch {
        throw new PainterError(`This is no ${bare(called)}, or the file is damaged.`);
      }
      const head = headed.safeParse(data);
      if (!head.success) throw new PainterError(`This is no ${bare(called)}.`);
      if (head.data.version > version) {
        throw new PainterError(`This ${bare(called)} is of a later version than this one can read.`);
      }
      const read = whole.safeParse(data);
      if (!read.success) {
        const [issue] = read.error.issues;
        const where = [...issue.path, ...(issue.code === 'unrecognized_keys' ? issue.keys.slice(0, 1) : [])].join('.');
        const why = issue.code === 'unrecognized_keys' ? 'does not belong there' : 'is not right';
        throw new PainterError(`This ${bare(called)} cannot be read: "${where}" ${why}.`);
      }
      const { format: _, version: __, ...what } = read.data;
      check?.(what as z.output<S>);
      return what as z.output<S>;
    },
  };
}

/** "a set of tubes" without its article. */
const bare = (called: string): string => called.replace(/^(an?|the) /, '');
