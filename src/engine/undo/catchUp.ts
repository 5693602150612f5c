import type { Command } from '@/core/commands/commands';

/** How often it is said how far it is, ms. */
const TELL_MS = 100;

/** Commands that are worked off a slice of time after the other, so that the page stays in touch. */
export class CatchUp {
  private at = 0;
  private told = -Infinity;

  /**
   * @param work applies one command
   * @param tell says how many are done
   * @param then is called once, after the last
   */
  constructor(
    private readonly commands: readonly Command[],
    private readonly work: (command: Command) => void,
    private readonly tell: (done: number, total: number) => void,
    private readonly then: () => void,
  ) {}

  /** Works for some time. @returns whether everything is done */
  run(ms: number): boolean {
    const start = performance.now();
    while (this.at < this.commands.length && performance.now() - start < ms) this.work(this.commands[this.at++]);
    const done = this.at >= this.commands.length;
    if (done || performance.now() - this.told > TELL_MS) {
      this.told = performance.now();
      this.tell(this.at, this.commands.length);
    }
    if (done) this.then();
    return done;
  }
}
