import { pigmentName } from '@/core/colour/pigments';
import { COMMANDS, type Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';

/** What a painter has made a rule for one painting: which tubes may be used. */
export class HouseRules {
  private only: ReadonlySet<string> | undefined;

  /** @param tubes ids of the only tubes that may be used; any where left out */
  allow(tubes?: readonly string[]): void {
    this.only = tubes && new Set(tubes);
  }

  /** @throws PainterError when a command uses a tube that is not allowed */
  check(command: Command): void {
    const other = this.only && COMMANDS.tubesOf(command).find((id) => !this.only!.has(id));
    if (other) throw new PainterError(`By your house rules ${pigmentName(other)} is not for this painting.`);
  }
}
