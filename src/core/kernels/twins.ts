/** What tests of the kernels need: each loop plain and compiled. */
import { Arena } from '@/core/film/arena';
import { plainKernels, simdKernels, type Kernels } from './kernels';

/** Runs the same work with both kinds of kernels on memories that were filled alike. */
export function both<T>(work: (kernels: Kernels, arena: Arena) => T): { plain: T; simd: T } {
  const run = (kind: (arena: Arena) => Kernels | undefined) => {
    const arena = new Arena(256 * 2 ** 20);
    return work(kind(arena)!, arena);
  };
  return { plain: run(plainKernels), simd: run(simdKernels) };
}
