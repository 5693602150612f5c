import type { BlendMode } from '@/core/colour/blendModes';
import { linearToBytes } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { LightStroke } from '@/core/marks/lightStroke';
import type { StrokeSetting } from '@/core/marks/stampedStroke';
import type { ToolDefinition } from './definition';
import type { Toolbox } from './toolbox';

/** Light for a blend mode when nothing is loaded: white where it lightens, black where it darkens. */
const LIGHTENS: readonly BlendMode[] = ['screen', 'color-dodge', 'lighten'];

/** A stroke on what has no film: a mask, light, a picture. @param light how the tool in hand marks these */
export function lightStrokeFor(
  { lastMixture }: Toolbox,
  setting: StrokeSetting,
  light: NonNullable<ToolDefinition['light']>,
  part: 'layer' | 'mask',
): LightStroke {
  const { layer, settings } = setting;
  const form = light(settings);
  if (part === 'mask') {
    return new LightStroke(setting, form, { on: 'mask', grey: settings.grey, fill: layer.look.mask?.fill ?? 255 });
  }
  const plain = LIGHTENS.includes(layer.look.blend) ? 255 : 0;
  const colour = lastMixture ? linearToBytes(masstoneLinear(lastMixture)) : ([plain, plain, plain] as const);
  return new LightStroke(setting, form, { on: 'pixels', colour });
}
