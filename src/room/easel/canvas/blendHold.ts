import type { ToolId } from '@/core/tools/tools';
import { useEasel } from '@/room/easel/easelStore';

/** The tool that blends while it is held, and how it laid before. */
let before: { readonly tool: ToolId; readonly blend: number } | undefined;

/** While this is held the tool in hand blends with its own tip, and gives nothing of its own. */
export function blendWhileHeld(held: boolean): void {
  const { bench, apply } = useEasel.getState();
  if (!bench) return;
  const { tool, blend } = bench.tool;
  if (held) {
    before = { tool, blend };
    apply({ do: 'tool', tool, blend: 1 }, 'passing');
    return;
  }
  const was = before;
  before = undefined;
  if (!was) return;
  apply({ do: 'tool', tool: was.tool, blend: was.blend }, 'passing');
  // another tool may have been taken meanwhile
  if (was.tool !== tool) apply({ do: 'tool', tool }, 'passing');
}
