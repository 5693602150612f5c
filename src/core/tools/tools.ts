import type { HeldTool } from '@/core/marks/heldTool';
import type { ToolDefinition } from './definition';
import { BRUSHES } from './families/brushes';
import { ERASERS } from './families/erasers';
import { FINGERS } from './families/fingers';
import { GELS } from './families/gels';
import { INKS } from './families/inks';
import { KEEP_OFFS } from './families/keepOffs';
import { KNIFE_TOOLS } from './families/knives';
import { SALTS } from './families/salts';
import { SPRAYS } from './families/sprays';
import { STICK_TOOLS } from './families/sticks';
import { WASH_TOOLS } from './families/washes';
import { ToolSet } from './toolSet';

/** All tools, in the order in which kept paintings tell of them: families that came later stand behind. */
const ALL = {
  ...BRUSHES,
  ...KNIFE_TOOLS,
  ...GELS,
  ...SPRAYS,
  ...STICK_TOOLS,
  ...FINGERS,
  ...ERASERS,
  ...WASH_TOOLS,
  ...SALTS,
  ...KEEP_OFFS,
  ...INKS,
} satisfies Record<string, ToolDefinition>;

export type ToolId = keyof typeof ALL;
export const TOOL_IDS = Object.keys(ALL) as [ToolId, ...ToolId[]];
export const TOOLS = new ToolSet<ToolId>(ALL);

/** What is in hand before anything is taken. */
export const FIRST_IN_HAND: ToolId = 'flat';
/** What the eraser end of a pen is. */
export const RUB_OUT: ToolId = 'eraser';

/** How a tool is held: everything that a painter sets. */
export interface ToolSettings extends HeldTool {
  readonly tool: ToolId;
}

/** What the house knows of a tool. */
export const toolOf = (id: ToolId): ToolDefinition => TOOLS.of(id);

/** How a tool is held when it is first taken up. */
export const startSettings = (tool: ToolId): ToolSettings => ({ tool, ...toolOf(tool).first });

export const isToolId = (id: string): id is ToolId => TOOLS.has(id);
