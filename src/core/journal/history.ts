import type { Command } from './commands';

/** Whether a command changes the painting, and so is what undo takes back. */
export const changesPainting = (command: Command): boolean =>
  command.do === 'stroke' ||
  command.do === 'dry' ||
  command.do === 'leave' ||
  command.do === 'retube' ||
  command.do === 'tilt' ||
  command.do === 'mist' ||
  command.do === 'tone' ||
  command.do === 'fix' ||
  command.do === 'silhouette' ||
  command.do === 'blow' ||
  command.do === 'select' ||
  command.do === 'transform' ||
  command.do === 'canvas' ||
  command.do === 'fill' ||
  command.do === 'stamp' ||
  command.do.startsWith('slab.') ||
  (command.do.startsWith('layer.') && command.do !== 'layer.choose');

/** The commands that lead to the state at the end of a journal: undo and redo carried out, nothing else changed. */
export function effectiveCommands(entries: readonly Command[]): Command[] {
  let line: Command[] = [];
  let future: { at: number; commands: Command[] }[] = [];
  for (const entry of entries) {
    if (entry.do === 'undo') {
      const at = line.findLastIndex(changesPainting);
      if (at < 0) continue;
      future.push({ at, commands: line.slice(at) });
      line = line.slice(0, at);
    } else if (entry.do === 'redo') {
      const undone = future.pop();
      if (undone) line = [...line.slice(0, undone.at), ...undone.commands];
    } else {
      if (changesPainting(entry)) future = [];
      line.push(entry);
    }
  }
  return line;
}
