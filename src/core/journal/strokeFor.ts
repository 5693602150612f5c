import { BrushStroke } from '@/core/marks/brushStroke';
import { EraserStroke } from '@/core/marks/eraserStroke';
import { GelStroke } from '@/core/marks/gelStroke';
import { InkStroke } from '@/core/marks/inkStroke';
import { KeepOffStroke } from '@/core/marks/keepOffStroke';
import { KNIVES } from '@/core/marks/knifeForm';
import { KnifeStroke } from '@/core/marks/knifeStroke';
import { PencilStroke } from '@/core/marks/pencilStroke';
import { SaltStroke } from '@/core/marks/saltStroke';
import { SpatterStroke } from '@/core/marks/spatterStroke';
import { SprayStroke } from '@/core/marks/sprayStroke';
import type { StrokeInProgress, StrokeSetting } from '@/core/marks/stampedStroke';
import { kindOf, washForm } from '@/core/marks/tools';
import { WASH_FORMS } from '@/core/marks/washForms';
import { BlotStroke, DropStroke, SplatterStroke, WashStroke } from '@/core/marks/washStroke';
import type { Toolbox } from './toolbox';

/** The stroke that the tool in hand makes. */
export function strokeFor(tools: Toolbox, setting: StrokeSetting): StrokeInProgress {
  switch (kindOf(tools.inHand)) {
    case 'pencil':
      return new PencilStroke(setting);
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
      return new InkStroke(setting, tools.inHand === 'ink-fast' ? 'fast' : 'soluble', tools.ink);
    case 'keep-off':
      return new KeepOffStroke(setting, tools.inHand as 'masking' | 'crepe' | 'wax');
    case 'salt':
      return new SaltStroke(setting);
    case 'brush': {
      if (tools.inHand === 'rag' && setting.layer.basin) return new BlotStroke(setting, WASH_FORMS.rag);
      const { form, footprint } = tools.brushInHand();
      return new BrushStroke(setting, form, footprint, tools.reservoirInHand());
    }
  }
}
