/**
 * Fields that are dear to make and are never written to, by what they were made from: the ones used last, as many as
 * there is room for. Paintings on the same support, and a painting that is opened again, share them.
 */
export class Remembered<T> {
  private readonly made = new Map<string, T>();
  private cells = 0;

  /**
   * @param most cells that all of them may have together
   * @param cellsOf how many cells one has
   */
  constructor(
    private readonly most: number,
    private readonly cellsOf: (made: T) => number,
  ) {}

  /** What was made from this before, or is made now. */
  once(key: string, make: () => T): T {
    const found = this.made.get(key);
    const one = found ?? make();
    // the newest stands last
    if (found) this.made.delete(key);
    else this.cells += this.cellsOf(one);
    this.made.set(key, one);
    for (const [other, old] of this.made) {
      if (this.cells <= this.most || other === key) break;
      this.made.delete(other);
      this.cells -= this.cellsOf(old);
    }
    return one;
  }
}
