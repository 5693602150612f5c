import { TABLE_COUNT, isColoured, pigmentId } from '@/core/colour/pigments';
import type { Command } from '@/core/commands/commands';
import { NO_RULES, refusalOf, type HouseRules as Rules } from '@/core/commands/houseRules';
import { PainterError } from '@/core/errors';
import type { Ledger } from '@/core/film/ledger';

/** Keeps the rules that a painter has set for one painting. */
export class HouseRules {
  private rules: Rules = NO_RULES;
  private tubes: readonly string[] = [];
  private timeUp = false;

  /** @param ledger of the painting as it is now */
  constructor(private readonly ledger: () => Pick<Ledger, 'loaded'>) {}

  /**
   * @param tubes at hand
   * @param timeUp whether the time set for it is over
   */
  set(rules: Rules, tubes: readonly string[], timeUp: boolean): void {
    Object.assign(this, { rules, tubes, timeUp });
  }

  /** @throws PainterError when a command, or a stroke where none is given, breaks a rule */
  check(command?: Command): void {
    const { rules, tubes, timeUp } = this;
    const used = rules.mostInPainting ? this.used() : new Set<string>();
    const why = refusalOf(rules, { command, tubes, used, timeUp });
    if (why) throw new PainterError(why);
  }

  /** Whether something may be looked at from so near, device pixels for each cell. */
  isNearEnough(zoom: number): boolean {
    return zoom <= (this.rules.nearest ?? Infinity) * 1.001;
  }

  /** The tubes of which anything has come into the painting. */
  private used(): Set<string> {
    const used = new Set<string>();
    const { loaded } = this.ledger();
    for (let index = 0; index < TABLE_COUNT; index++) {
      if (loaded[index] > 0 && isColoured(index)) used.add(pigmentId(index));
    }
    used.delete('graphite');
    return used;
  }
}
