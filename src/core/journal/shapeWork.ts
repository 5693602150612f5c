import { Guard } from '@/core/film/guard';
import type { Layer } from '@/core/film/layer';
import { washShape } from '@/core/marks/shapeWash';
import { STICKS, type StickName } from '@/core/marks/stickForms';
import { isStick, kindOf, type ToolSettings } from '@/core/marks/tools';
import { WASH_FORMS, type WashForm, type WashFormName } from '@/core/marks/washForms';
import { cutShape, fillShape, ShapeMask } from '@/core/marks/silhouette';
import { noChange, type Change, type Workplace } from './change';
import type { Command } from './commands';
import { PainterError } from './errors';
import { needTubes } from './toolbox';

/** Thickness that tools leave when they cover, um: brushes by the body of the paint, the knife its slab. */
export const thicknessOf = ({ tool, body, strength }: ToolSettings): number =>
  strength * (kindOf(tool) === 'knife' ? 260 : 40 + 70 * body);

/** Fills or cuts a shape. @throws PainterError when there is nothing to fill it with, or the layer takes none of it */
export function silhouette(
  { painting, keep }: Workplace,
  command: Extract<Command, { do: 'silhouette' }>,
  settings: ToolSettings,
  layer: Layer,
): Change {
  const { outline, cut, mixture, edgeMm, streaks } = command;
  const mask = new ShapeMask(painting, outline, edgeMm);
  if (cut) return { ...noChange(), rect: cutShape(painting, layer, mask, keep) };
  if (!mixture) throw new PainterError('A shape is filled with a mixture: load one first.');
  needTubes(Object.keys(mixture));
  const { tool } = settings;
  const form: WashForm | undefined = kindOf(tool) === 'wash' ? WASH_FORMS[tool as WashFormName] : undefined;
  if (form && !form.thirsty) {
    const guard = Guard.of(painting, layer);
    const { water = settings.water } = command;
    const wash = { form, mixture, strength: settings.strength, wetness: water, edgeMm, seed: painting.spec.seed + outline.length }; // prettier-ignore
    const rect = washShape(painting, layer, outline, wash, guard?.wrap(keep) ?? keep, guard);
    guard?.settle();
    return { ...noChange(), rect };
  }
  const stick = isStick(tool) ? STICKS[tool as StickName] : undefined;
  if (!stick && kindOf(tool) !== 'brush' && kindOf(tool) !== 'knife') {
    throw new PainterError(
      'A shape is filled with paint, with water or with a stick: take a brush, the knife or a stick first.',
    );
  }
  const um = command.thicknessUm ?? thicknessOf(settings);
  const filling = { mixture, um, body: settings.body, stick, streaks, seed: painting.spec.seed + outline.length };
  return { ...noChange(), rect: fillShape(painting, layer, mask, outline, filling, keep) };
}
