import { beforeEach, describe, expect, it } from 'vitest';
import { startSettings } from '@/core/tools/tools';
import type { BenchState } from '@/engine/protocol';
import { askFor, askNothing, withAsked } from './askedTool';
import { useEasel } from '@/room/easel/easelStore';
import { takeTool } from '@/room/easel/hand/taking';
import { resize } from '@/room/easel/hand/handActs';

const tools = [startSettings('flat'), startSettings('graphite')];
const told = (tool: 'flat' | 'graphite', sizeMm?: number) => {
  const settings = tools.map((t) => (t.tool === tool && sizeMm ? { ...t, sizeMm } : t));
  return { tool: settings.find((t) => t.tool === tool)!, tools: settings } as unknown as BenchState;
};

describe('a tool that has been asked for', () => {
  beforeEach(askNothing);

  it('is in hand at once, and stays there while the engine still tells of the one before', () => {
    askFor({ do: 'tool', tool: 'graphite' });
    expect(withAsked(told('flat')).tool.tool).toBe('graphite');
    expect(withAsked(told('flat')).tool.tool).toBe('graphite');
    expect(withAsked(told('graphite')).tool.tool).toBe('graphite');
    // from then on the engine is believed
    expect(withAsked(told('flat')).tool.tool).toBe('flat');
  });

  it('has its size with it, and is forgotten when it is refused', () => {
    askFor({ do: 'tool', tool: 'graphite', sizeMm: 1.1 });
    expect(withAsked(told('graphite')).tool.sizeMm).toBe(1.1);
    expect(withAsked(told('graphite', 1.1)).tool.sizeMm).toBe(1.1);
    askFor({ do: 'tool', tool: 'graphite' });
    askNothing();
    expect(withAsked(told('flat')).tool.tool).toBe('flat');
  });

  it('is the one that a size key changes, however late the engine is', () => {
    const said: object[] = [];
    useEasel.setState({ bench: told('flat'), engine: { apply: (command: object) => said.push(command) } as never });
    takeTool('graphite');
    resize(1.15);
    resize(1.15);
    const sizes = said.map((c) => [(c as { tool: string }).tool, (c as { sizeMm?: number }).sizeMm]);
    const first = startSettings('graphite').sizeMm;
    expect(sizes.map(([tool]) => tool)).toEqual(['graphite', 'graphite', 'graphite']);
    expect(Number(sizes[2][1])).toBeGreaterThan(Number(sizes[1][1]));
    expect(Number(sizes[1][1])).toBeGreaterThan(first);
    expect(useEasel.getState().bench?.tool.tool).toBe('graphite');
  });
});
