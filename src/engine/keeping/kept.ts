import { z } from '@/core/schema';
import { openStore } from './store';

/**
 * One thing that this browser keeps for the painter: how the jar is set out, own tubes, what is liked. What was written
 * by a version before, or is damaged, is brought to the shape of today or left aside; it never stops the app.
 */
export interface Kept<T> {
  /** What is kept, or undefined where there is nothing that can be read. */
  read(): Promise<T | undefined>;
  /** Rejects where the browser has no room. */
  write(value: T): Promise<void>;
}

interface KeptAs<T> {
  /** Store and key under which it lies; both stay as they are for ever. */
  readonly store: string;
  readonly key: string;
  readonly version: number;
  readonly schema: z.ZodType<T>;
  /** Brings what an older version wrote to the shape of today; 0 is what was written before versions were. */
  readonly older?: (value: unknown, version: number) => unknown;
}

/** Describes what is kept; nothing is opened until it is asked for. */
export function kept<T>({ store, key, version, schema, older }: KeptAs<T>): Kept<T> {
  const shelf = () => openStore(store);
  return {
    async read() {
      const found = await shelf()
        .getItem<unknown>(key)
        .catch(() => null);
      if (found === null || found === undefined) return undefined;
      const written = isVersioned(found) ? found : { version: 0, value: found };
      try {
        const value = written.version < version && older ? older(written.value, written.version) : written.value;
        return schema.safeParse(value).data;
      } catch {
        return undefined;
      }
    },
    async write(value) {
      await shelf().setItem(key, { version, value });
    },
  };
}

/** A list of which each thing stands for itself: one that cannot be read does not take the others along. */
export const each = <S extends z.ZodType>(schema: S) =>
  z.array(z.unknown()).transform((all): z.output<S>[] =>
    all.flatMap((one) => {
      const read = schema.safeParse(one);
      return read.success ? [read.data] : [];
    }),
  );

const isVersioned = (found: unknown): found is { version: number; value: unknown } =>
  typeof found === 'object' && found !== null && 'version' in found && 'value' in found;
