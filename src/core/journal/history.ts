import { COMMANDS, type Command } from '@/core/commands/commands';

/** Whether a command changes the painting, and so is what undo takes back. */
export const changesPainting = (command: Command): boolean => COMMANDS.isUndoable(command);

/**
 * What was taken back: it was done from a place in the history on, and can be done again there. So many of it were done
 * once more after that, in its place: what was done to the tools, where the hand stays.
 */
export interface TakenBack {
  readonly at: number;
  readonly commands: readonly Command[];
  readonly carried: number;
}

/** What an undo or redo carries along: what was done to the tools. */
export const handOf = (commands: readonly Command[], stays: boolean): readonly Command[] =>
  stays ? commands.filter((command) => COMMANDS.isOfHand(command)) : [];

/** Where a journal leads: the commands that lead to its state, and what can be done again from there, the next last. */
export interface History {
  readonly line: readonly Command[];
  readonly undone: readonly TakenBack[];
}

/** Carries out the undo and redo of a journal; everything else stays as it is. */
export function historyOf(entries: readonly Command[]): History {
  let line: Command[] = [];
  let undone: TakenBack[] = [];
  for (const entry of entries) {
    if (entry.do === 'undo') {
      const at = line.findLastIndex(changesPainting);
      if (at < 0) continue;
      const commands = line.slice(at);
      const carried = handOf(commands, entry.hand === 'stays');
      undone.push({ at, commands, carried: carried.length });
      line = [...line.slice(0, at), ...carried];
    } else if (entry.do === 'redo') {
      const again = undone.pop();
      if (!again) continue;
      const since = handOf(line.slice(again.at + again.carried), entry.hand === 'stays');
      line = [...line.slice(0, again.at), ...again.commands, ...since];
    } else {
      if (changesPainting(entry)) undone = [];
      line.push(entry);
    }
  }
  return { line, undone };
}

/** The commands that lead to the state at the end of a journal. */
export const effectiveCommands = (entries: readonly Command[]): readonly Command[] => historyOf(entries).line;
