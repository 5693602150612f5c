/** What tests of selections need. */
import { albedoOf } from '@/core/picture/layers/albedo';
import { studioFor } from '@/measure/bench';
import type { PaintingSpec } from '@/core/film/painting';
import { wholeRect } from '@/core/film/tilesIn';
import { commandSchema, type CommandInput } from '@/core/commands/commands';
import { Studio } from '@/core/journal/studio';

export const act = (studio: Studio, ...commands: CommandInput[]) =>
  commands.map((c) => studio.apply(commandSchema.parse(c))).at(-1)!;

export const canvas = (rest: Partial<PaintingSpec> = {}) =>
  new Studio({ ...studioFor(30, 24, { ppi: 110 }).spec, ...rest });

export const raster = (studio: Studio) => albedoOf(studio.painting).raster(wholeRect(studio.painting));
