import { PainterError } from '@/core/errors';
import { z } from '@/core/schema';

/** Something that can be chosen of a file that is sent out. */
export type Setting =
  | {
      readonly kind: 'choice';
      readonly label: string;
      readonly choices: Readonly<Record<string, string>>;
      readonly first: string;
    }
  | {
      readonly kind: 'number';
      readonly label: string;
      readonly unit?: string;
      readonly least: number;
      readonly most: number;
      readonly step: number;
      readonly first: number;
    }
  | { readonly kind: 'switch'; readonly label: string; readonly first: boolean };

export type Settings = Readonly<Record<string, Setting>>;

/** What was chosen. */
export type Chosen<S extends Settings> = {
  readonly [K in keyof S]: S[K] extends { readonly kind: 'choice' }
    ? keyof S[K]['choices'] & string
    : S[K] extends { readonly kind: 'number' }
      ? number
      : boolean;
};

function schemaOf(setting: Setting) {
  if (setting.kind === 'switch') return z.boolean();
  if (setting.kind === 'number') return z.number().min(setting.least).max(setting.most);
  return z.enum(Object.keys(setting.choices) as [string, ...string[]]);
}

/** What a setting may be, in words. */
export function mayBe(setting: Setting): string {
  if (setting.kind === 'switch') return 'true or false';
  if (setting.kind === 'choice') return Object.keys(setting.choices).join(', ');
  return `${setting.least} to ${setting.most}${setting.unit ? ` ${setting.unit}` : ''}`;
}

/** What was chosen, with what was left out as it is at first. @throws PainterError with a sentence */
export function chosenOf<S extends Settings>(settings: S, given: unknown): Chosen<S> {
  const read = z.record(z.string(), z.unknown()).safeParse(given ?? {});
  if (!read.success) throw new PainterError('The settings of the file make no sense.');
  for (const name of Object.keys(read.data)) {
    if (!(name in settings))
      throw new PainterError(
        `There is no setting "${name}" here; there are: ${Object.keys(settings).join(', ') || 'none'}.`,
      );
  }
  const chosen = Object.entries(settings).map(([name, setting]) => {
    const value = read.data[name] ?? setting.first;
    const known = schemaOf(setting).safeParse(value);
    if (!known.success) throw new PainterError(`"${setting.label}" (${name}) can be ${mayBe(setting)}.`);
    return [name, known.data];
  });
  return Object.fromEntries(chosen) as Chosen<S>;
}

/** A setting as it is typed on a command line. @throws PainterError where it is none */
export function typedSetting(settings: Settings, name: string, text: string): unknown {
  const setting = settings[name];
  if (setting?.kind === 'number') return text.trim() === '' ? NaN : Number(text);
  if (setting?.kind === 'switch') return text === 'true' ? true : text === 'false' ? false : text;
  return text;
}
