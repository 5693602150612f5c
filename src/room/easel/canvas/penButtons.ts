import { RUB_OUT, type ToolId } from '@/core/tools/tools';
import { useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import { hold, type Hold } from './holds';

/** Buttons of a pen as the Pointer Events standard counts them in `buttons`. */
const BARREL = 2;
const ERASER = 32;

/** What the painter has set the button and the other end of the pen to. */
export class PenButtons {
  private barrel: Hold | undefined;
  /** What is given back when the eraser end is lifted. */
  private giveBack: (() => void) | undefined;

  /** Heeds the barrel button, pressed over the canvas or on it. */
  heed({ pointerType, buttons }: Pick<PointerEvent, 'pointerType' | 'buttons'>): void {
    if (pointerType !== 'pen') return;
    const pressed = (buttons & BARREL) !== 0;
    if (pressed === (this.barrel !== undefined)) return;
    if (!pressed) {
      this.letGo();
      return;
    }
    const { barrel } = useLikings.getState();
    if (barrel === 'none') return;
    this.barrel = barrel;
    hold(barrel, true);
  }

  /** Turns the hand for a stroke with the eraser end. */
  begin({ pointerType, buttons, button }: Pick<PointerEvent, 'pointerType' | 'buttons' | 'button'>): void {
    if (pointerType !== 'pen' || !((buttons & ERASER) !== 0 || button === 5)) return;
    const { eraser } = useLikings.getState();
    if (eraser === 'blend') {
      hold('blend', true);
      this.giveBack = () => hold('blend', false);
    }
    const tool: ToolId | undefined = useEasel.getState().bench?.tool.tool;
    if (eraser === 'rub' && tool && tool !== RUB_OUT) {
      useEasel.getState().apply({ do: 'tool', tool: RUB_OUT }, 'passing');
      this.giveBack = () => useEasel.getState().apply({ do: 'tool', tool }, 'passing');
    }
  }

  /** The stroke is over. */
  end(): void {
    this.giveBack?.();
    this.giveBack = undefined;
  }

  /** The pen is gone: what its button held is let go. */
  letGo(): void {
    if (this.barrel) hold(this.barrel, false);
    this.barrel = undefined;
  }
}
