/**
 * The one memory in which everything hot lives: planes of tiles, the brush's window, the picture. It is a
 * WebAssembly memory so that compiled kernels and other threads can work on it by address; where the page is not
 * isolated it is an unshared one.
 *
 * Addresses are byte offsets, aligned to 64, and below 2 GiB, so that shifting them to words stays right. Views are replaced when the memory grows: read `arena.f32` afresh
 * after anything that may allocate.
 */
export class Arena {
  readonly memory: WebAssembly.Memory;
  f32!: Float32Array;
  i32!: Int32Array;
  u32!: Uint32Array;
  u16!: Uint16Array;
  u8!: Uint8Array;
  /** Bytes handed out and not yet given back. */
  used = 0;
  private top = 64;
  private readonly free_ = new Map<number, number[]>();

  /**
   * @param restless the memory grows at every allocation and is not shared, so that each leaves all views detached:
   *   for tests, in which a view that is kept too long then shows at once
   */
  constructor(
    maximumBytes = 2 ** 31,
    private readonly restless = false,
  ) {
    this.memory = createMemory(Math.ceil(maximumBytes / WASM_PAGE), !restless);
    this.view();
  }

  /** Address of `bytes` zeroed bytes. @throws RangeError when the machine has no more memory to give. */
  allocate(bytes: number): number {
    const size = roundUp(bytes);
    this.used += size;
    if (this.restless) this.grow(this.u8.length + 1);
    const list = this.free_.get(size);
    const reused = list?.pop();
    if (reused !== undefined) {
      this.u8.fill(0, reused, reused + size);
      return reused;
    }
    const at = this.top;
    if (at + size > this.u8.length) this.grow(at + size);
    this.top += size;
    return at;
  }

  /** Gives `bytes` at `address` back. */
  free(address: number, bytes: number): void {
    const size = roundUp(bytes);
    this.used -= size;
    const list = this.free_.get(size);
    if (list) list.push(address);
    else this.free_.set(size, [address]);
  }

  /**
   * Copies an array to a byte address. The view is read here, when the address and the data are known: writing through a
   * view that was read before they were worked out goes wrong when that made the memory grow.
   */
  write(address: number, data: Float32Array | Int32Array | Uint32Array | Uint16Array | Uint8Array): void {
    const view =
      data instanceof Float32Array
        ? this.f32
        : data instanceof Int32Array
          ? this.i32
          : data instanceof Uint32Array
            ? this.u32
            : data instanceof Uint16Array
              ? this.u16
              : this.u8;
    view.set(data, address / data.BYTES_PER_ELEMENT);
  }

  private grow(needed: number): void {
    // at least a quarter more each time, so that a painting grows in few steps
    const want = this.restless ? needed : Math.max(needed, this.u8.length * 1.25);
    this.memory.grow(Math.ceil((want - this.u8.length) / WASM_PAGE));
    this.view();
  }

  private view(): void {
    const { buffer } = this.memory;
    this.f32 = new Float32Array(buffer);
    this.i32 = new Int32Array(buffer);
    this.u32 = new Uint32Array(buffer);
    this.u16 = new Uint16Array(buffer);
    this.u8 = new Uint8Array(buffer);
  }
}

const WASM_PAGE = 65536;
const roundUp = (bytes: number) => (bytes + 63) & ~63;

function createMemory(maximum: number, share: boolean): WebAssembly.Memory {
  const initial = 64; // 4 MiB
  const shared = share && typeof SharedArrayBuffer !== 'undefined';
  try {
    return new WebAssembly.Memory({ initial, maximum, shared });
  } catch {
    return new WebAssembly.Memory({ initial, maximum: Math.min(maximum, 16384), shared });
  }
}
