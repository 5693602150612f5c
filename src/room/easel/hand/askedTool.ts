import type { Command } from '@/core/commands/commands';
import type { ToolId } from '@/core/tools/tools';
import type { BenchState } from '@/engine/protocol';

/**
 * The tool and size that the hand has asked for and the engine has not told of yet. While it is behind, what it tells is
 * older than what the hand knows: a size key would put the tool before back into the hand.
 */
let asked: { readonly tool: ToolId; readonly sizeMm?: number; readonly at: number } | undefined;

/** How long the engine may be behind, ms; what it has not taken by then it never will. */
const MOST_MS = 10_000;

/** Notes that a tool is asked for. */
export function askFor({ tool, sizeMm }: Extract<Command, { do: 'tool' }>): void {
  asked = { tool, sizeMm: sizeMm ?? (asked?.tool === tool ? asked.sizeMm : undefined), at: performance.now() };
}

/** Nothing is asked for any more: it was refused, or another painting is on the easel. */
export function askNothing(): void {
  asked = undefined;
}

/** What the engine tells, with the tool in hand that has been asked for since; forgotten once the engine has it. */
export function withAsked(bench: BenchState): BenchState {
  if (!asked) return bench;
  const { tool, sizeMm, at } = asked;
  const held = bench.tools.find((settings) => settings.tool === tool);
  const known = bench.tool.tool === tool && (sizeMm === undefined || bench.tool.sizeMm === sizeMm);
  if (known || !held || performance.now() - at > MOST_MS) {
    asked = undefined;
    return bench;
  }
  const now = { ...held, ...(sizeMm !== undefined && { sizeMm }) };
  return { ...bench, tool: now, tools: bench.tools.map((settings) => (settings.tool === tool ? now : settings)) };
}
