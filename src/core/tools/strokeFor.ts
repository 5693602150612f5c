import type { BlendMode } from '@/core/colour/blendModes';
import { linearToBytes } from '@/core/colour/colorimetry';
import { masstoneLinear } from '@/core/colour/mixture';
import { BrushStroke } from '@/core/marks/brushStroke';
import { EraserStroke } from '@/core/marks/eraserStroke';
import { GelStroke } from '@/core/marks/gelStroke';
import { InkStroke, PENS, type PenName } from '@/core/marks/inkStroke';
import { KeepOffStroke } from '@/core/marks/keepOffStroke';
import { KNIVES } from '@/core/marks/knifeForm';
import { KnifeStroke } from '@/core/marks/knifeStroke';
import { KneadedStroke } from '@/core/marks/kneadedStroke';
import { LightStroke, type LightForm } from '@/core/marks/lightStroke';
import { SaltStroke } from '@/core/marks/saltStroke';
import { isRub, rubbing, RUBS, SmudgeStroke, type RubName } from '@/core/marks/smudgeStroke';
import { SpatterStroke } from '@/core/marks/spatterStroke';
import { SprayStroke } from '@/core/marks/sprayStroke';
import type { StrokeInProgress, StrokeSetting } from '@/core/marks/stampedStroke';
import { graded } from '@/core/marks/stickForms';
import { StickStroke } from '@/core/marks/stickStroke';
import { Together } from '@/core/marks/together';
import { isBlender, kindOf, stickForm, washForm } from '@/core/marks/tools';
import { WASH_FORMS } from '@/core/marks/washForms';
import { BlotStroke, DropStroke, SplatterStroke, WashStroke } from '@/core/marks/washStroke';
import type { Toolbox } from './toolbox';

/** How the tool in hand marks light and masks: by its kind, its hardness, and whether it lays or blends. */
function lightForm(tools: Toolbox): LightForm {
  const { tool, blend, tip } = tools.current;
  const smear = blend > 0.5 || isBlender(tool) || isRub(tool) || kindOf(tool) === 'finger';
  switch (kindOf(tool)) {
    case 'spray':
      return { soft: 1, grain: 0.12, smear };
    case 'eraser':
    case 'kneaded':
      return { soft: tip === 'hard' ? 0.15 : 0.8, grain: 0, rub: true };
    case 'stick':
      return { soft: 0.4, grain: 0.75, smear };
    case 'knife':
    case 'ink':
      return { soft: 0.08, grain: 0, smear };
    case 'spatter':
      return { soft: 0.3, grain: 0.9, smear };
    default:
      return { soft: 0.45, grain: 0.1, smear };
  }
}

/** Light for a blend mode when nothing is loaded: white where it lightens, black where it darkens. */
const LIGHTENS: readonly BlendMode[] = ['screen', 'color-dodge', 'lighten'];

/** A stroke on what has no film: a mask, light, a picture. */
export function lightStrokeFor(tools: Toolbox, setting: StrokeSetting, part: 'layer' | 'mask'): LightStroke {
  const { look } = setting.layer;
  const form = lightForm(tools);
  if (part === 'mask') {
    return new LightStroke(setting, form, { on: 'mask', grey: setting.settings.grey, fill: look.mask?.fill ?? 255 });
  }
  const mixture = tools.lastMixture;
  const plain = LIGHTENS.includes(look.blend) ? 255 : 0;
  const colour = mixture ? linearToBytes(masstoneLinear(mixture)) : ([plain, plain, plain] as const);
  return new LightStroke(setting, form, { on: 'pixels', colour });
}

/** The stroke that the tool in hand makes. */
export function strokeFor(tools: Toolbox, setting: StrokeSetting): StrokeInProgress {
  switch (kindOf(tools.inHand)) {
    case 'stick': {
      const form = stickForm(tools.inHand);
      const stick = new StickStroke(setting, form.pointed ? graded(form, setting.settings.grade) : form, tools.stick);
      const { blend } = setting.settings;
      return blend > 0 ? new Together([new SmudgeStroke(setting, rubbing(blend)), stick]) : stick;
    }
    case 'finger': {
      const smudge = new SmudgeStroke(setting, RUBS.finger);
      const { layer } = setting;
      if (layer.kind !== 'paint' || layer.basin || !layer.tiles.some((tile) => tile?.volume)) return smudge;
      // wet paint is drawn along too
      const { form, footprint } = tools.brushInHand();
      const drawn = { ...setting, settings: { ...setting.settings, blend: 1 } };
      const brush = new BrushStroke(drawn, form, footprint, tools.reservoirInHand());
      return layer.tiles.some((tile) => tile?.wash?.dusty) ? new Together([smudge, brush]) : brush;
    }
    case 'kneaded':
      return new KneadedStroke(setting);
    case 'eraser':
      return new EraserStroke(setting);
    case 'gel':
      return new GelStroke(setting);
    case 'spray':
      return new SprayStroke(setting, tools.reservoirInHand());
    case 'spatter':
      return new SpatterStroke(setting, tools.reservoirInHand());
    case 'knife':
      return new KnifeStroke(setting, KNIVES[tools.inHand as 'knife'], tools.reservoirInHand());
    case 'wash':
      return new WashStroke(setting, washForm(tools.inHand), tools.bellyInHand(washForm(tools.inHand)));
    case 'drops':
      return new DropStroke(setting, washForm(tools.inHand), tools.bellyInHand(washForm(tools.inHand)));
    case 'splatter':
      return new SplatterStroke(setting, washForm(tools.inHand), tools.bellyInHand(washForm(tools.inHand)));
    case 'ink':
      return new InkStroke(setting, PENS[tools.inHand as PenName], tools.ink);
    case 'keep-off':
      if (tools.coloursWax) return new StickStroke(setting, stickForm('wax'), tools.stick);
      return new KeepOffStroke(setting, tools.inHand as 'masking' | 'crepe' | 'wax');
    case 'salt':
      return new SaltStroke(setting);
    case 'brush': {
      if (tools.inHand === 'rag' && setting.layer.basin) return new BlotStroke(setting, WASH_FORMS.rag);
      const { layer } = setting;
      const rubs = isRub(tools.inHand) && layer.tiles.some((tile) => tile?.wash?.dusty);
      const smudge = rubs ? new SmudgeStroke(setting, RUBS[tools.inHand as RubName]) : undefined;
      if (smudge && !layer.tiles.some((tile) => tile?.volume)) return smudge;
      const { form, footprint } = tools.brushInHand();
      const brush = new BrushStroke(setting, form, footprint, tools.reservoirInHand());
      return smudge ? new Together([smudge, brush]) : brush;
    }
  }
}
