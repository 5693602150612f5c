/**
 * House rules: what a painter forbids for one painting. One definition a rule says it in words and refuses what breaks it;
 * the engine asks them all, and the room shows what they say.
 */
import { pigmentName } from '@/core/colour/pigments';
import { z } from '@/core/schema';
import { COMMANDS, type Command } from './commands';

/** Rules as they are kept with a painting; what is not there is no rule. */
export const houseRulesSchema = z.object({
  /** Only the tubes of the set may be used. */
  onlyTheseTubes: z.boolean().catch(false),
  sampleCanvas: z.boolean().catch(true),
  samplePhoto: z.boolean().catch(true),
  /** Most tubes in a recipe, 1 to 4. */
  mostTubes: z.number().int().min(1).max(4).catch(4),
  /** Nothing is taken back. */
  noUndo: z.boolean().catch(false),
  /** No layer is added to those there are. */
  oneLayer: z.boolean().catch(false),
  /** Most tubes in the whole painting. */
  mostInPainting: z.number().int().min(1).max(60).optional().catch(undefined),
  /** Device pixels for each cell, nearer than which it is not looked at. */
  nearest: z.number().min(0.05).max(24).optional().catch(undefined),
  /** Minutes that it may be painted on. */
  minutes: z.number().int().min(1).max(6000).optional().catch(undefined),
});

export type HouseRules = Readonly<z.output<typeof houseRulesSchema>>;

export const NO_RULES: HouseRules = houseRulesSchema.parse({});

/** What rules are asked about: a command, or a stroke that begins; and how far the painting has come. */
export interface Act {
  /** None for a stroke. */
  readonly command?: Command;
  /** The tubes at hand. */
  readonly tubes: readonly string[];
  /** The tubes that have been used. */
  readonly used: ReadonlySet<string>;
  /** Whether the time set for it is over. */
  readonly timeUp: boolean;
}

interface Rule {
  /** What it says while it is a rule; undefined while it is none. */
  says(rules: HouseRules): string | undefined;
  /** The sentence in which it refuses something, where it does. */
  refuses?(rules: HouseRules, act: Act): string | undefined;
}

const tubesOf = ({ command }: Act): readonly string[] => (command ? COMMANDS.tubesOf(command) : []);
/** Commands that change nothing of the painting, and those that take back: they are free when the time is over. */
const isWork = ({ command }: Act): boolean => !command || COMMANDS.isUndoable(command);

export const RULES: readonly Rule[] = [
  {
    says: ({ onlyTheseTubes }) => (onlyTheseTubes ? 'only these tubes' : undefined),
    refuses({ onlyTheseTubes }, act) {
      const other = onlyTheseTubes ? tubesOf(act).find((id) => !act.tubes.includes(id)) : undefined;
      return other && `By your house rules ${pigmentName(other)} is not for this painting.`;
    },
  },
  {
    says: ({ mostInPainting: most }) =>
      most === undefined ? undefined : `at most ${most} ${most === 1 ? 'tube' : 'tubes'}`,
    refuses({ mostInPainting: most }, act) {
      const more = tubesOf(act).filter((id) => !act.used.has(id));
      if (!most || more.length === 0 || act.used.size + more.length <= most) return undefined;
      return `By your house rules this painting has no more than ${most} ${most === 1 ? 'tube' : 'tubes'}, and ${pigmentName(more[0])} would be one more.`;
    },
  },
  {
    says: ({ noUndo }) => (noUndo ? 'nothing is taken back' : undefined),
    refuses: ({ noUndo }, { command }) =>
      noUndo && command?.do === 'undo' ? 'By your house rules nothing is taken back in this painting.' : undefined,
  },
  {
    says: ({ oneLayer }) => (oneLayer ? 'no other layers' : undefined),
    refuses: ({ oneLayer }, { command }) =>
      oneLayer && command && COMMANDS.definitionOf(command).addsLayer
        ? 'By your house rules this painting has no other layers.'
        : undefined,
  },
  { says: ({ sampleCanvas }) => (sampleCanvas ? undefined : 'no sampling here') },
  { says: ({ samplePhoto }) => (samplePhoto ? undefined : 'no sampling of photos') },
  { says: ({ nearest }) => (nearest === undefined ? undefined : `no nearer than ${Math.round(nearest * 100)} %`) },
  {
    says: ({ minutes }) => (minutes === undefined ? undefined : `${minutes} minutes`),
    refuses: ({ minutes }, act) =>
      minutes && act.timeUp && isWork(act)
        ? `The ${minutes} minutes that you have set for this painting are over.`
        : undefined,
  },
];

/** Whether the time that is set is over. @param spentMs how long it has been painted on */
export const isTimeUp = ({ minutes }: HouseRules, spentMs = 0): boolean =>
  minutes !== undefined && spentMs >= minutes * 60_000;

/** What is a rule here, in words. */
export const rulesInWords = (rules: HouseRules): readonly string[] => RULES.flatMap(({ says }) => says(rules) ?? []);

/** The sentence in which the first rule that something breaks refuses it; undefined where none does. */
export function refusalOf(rules: HouseRules, act: Act): string | undefined {
  for (const { refuses } of RULES) {
    const why = refuses?.(rules, act);
    if (why) return why;
  }
  return undefined;
}
