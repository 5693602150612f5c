import { create } from 'zustand';
import { toolOf, type ToolId } from '@/core/tools/tools';
import { followColour, useEasel } from '@/room/easel/easelStore';
import { useLikings } from '@/room/likings';
import { jarNow, setupOf, useJar } from './jarStore';
import type { Held, Setup } from './setups';

/** What the hand has taken: a tool, from a place of the jar or from elsewhere. */
interface Taken {
  readonly tool: ToolId;
  readonly setup?: string;
}

/** What was in hand before. */
const useBefore = create<{ readonly before: Taken | undefined }>(() => ({ before: undefined }));

/** Forgets what was in hand before: another painting is on the easel. */
export function forgetBefore(): void {
  useBefore.setState({ before: undefined });
  useJar.getState().hold(undefined);
}

/** Takes a tool from the roll, as it was held last; once more, and the one before is in hand. */
export const takeTool = (tool: ToolId): void => take({ tool });

/** Takes what stands in a place of the jar, with its settings; once more, and the tool before is in hand. */
export function takePlace(place: number): void {
  const { tool, id } = jarNow()[place];
  take({ tool, setup: id });
}

/** Takes the tool beside the one in hand from the jar. */
export function takeBeside(by: 1 | -1): void {
  const jar = jarNow();
  const { inHand } = useJar.getState();
  const tool = useEasel.getState().bench?.tool.tool;
  const at = jar.findIndex(({ id }) => id === inHand);
  const near = at >= 0 ? at : jar.findIndex((setup) => setup.tool === tool);
  takePlace(near < 0 ? 0 : (near + by + jar.length) % jar.length);
}

/** Takes a set-up on a painting that nobody has touched: nothing is loaded, and there is none before it. */
export function begin({ tool, id, held }: Setup): void {
  useJar.getState().hold(id);
  useEasel.getState().apply({ do: 'tool', tool, ...held });
}

function take(what: Taken): void {
  const { bench, apply } = useEasel.getState();
  const jar = useJar.getState();
  const now: Taken | undefined = bench && { tool: bench.tool.tool, setup: jar.inHand };
  const { before } = useBefore.getState();
  // a tool that came from elsewhere stands in the jar too where a place has it
  const same =
    now?.tool === what.tool && (what.setup === undefined || now.setup === undefined || now.setup === what.setup);
  const next = same && before ? before : what;
  const other = now && (next.tool !== now.tool || (now.setup !== undefined && next.setup !== now.setup));
  if (other) useBefore.setState({ before: now });
  const setup = next.setup === undefined ? undefined : setupOf(next.setup);
  jar.hold(setup?.id);
  apply({ do: 'tool', tool: next.tool, ...heldFor(next.tool, setup) });
  followColour();
}

/** How a tool is held when it is taken: as it was set last, and loaded for every stroke where that is switched on. */
function heldFor(tool: ToolId, setup: Setup | undefined): Held & { keepLoaded?: boolean } {
  const held = setup ? setup.held : (useJar.getState().memory[tool] ?? {});
  const { keepLoaded } = useLikings.getState();
  const now = useEasel.getState().bench?.tools.find((settings) => settings.tool === tool);
  return toolOf(tool).takesPaint && now && now.keepLoaded !== keepLoaded ? { ...held, keepLoaded } : held;
}

/** Switches for all tools whether they take their paint again for every stroke. */
export function setKeepLoaded(keepLoaded: boolean): void {
  useLikings.getState().like({ keepLoaded });
  const { bench, apply } = useEasel.getState();
  if (bench && toolOf(bench.tool.tool).takesPaint) apply({ do: 'tool', tool: bench.tool.tool, keepLoaded });
}
