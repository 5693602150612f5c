import { groundFor, type Behaviour, type Ground } from '@/measure/behaviour';
import { field, line, loaded, mean, paint, values } from '@/measure/bench';
import { Picture } from '@/core/picture/picture';
import { readRegion } from '@/core/picture/readings';
import type { CommandInput } from '@/core/commands/commands';
import type { Studio } from '@/core/journal/studio';

/** Wet, tacky, dry. */
const HOUR = 3600;

/** Mean wetness of the middle. */
function wetness(studio: Studio): number {
  const picture = new Picture(studio.painting);
  const px = (mm: number) => Math.round(mm / studio.painting.mmPerPx);
  return readRegion(picture, px(15), px(12), px(40), px(24)).wetness;
}

function covered(ground: Ground, mixture: Record<string, number>, more: Parameters<typeof loaded>[3] = {}): Studio {
  const studio = groundFor(ground, 56, 40);
  for (let y = 9; y < 36; y += 7)
    paint(studio, ...loaded('flat', 12, mixture, { body: 0.5, amount: 1.2, ...more }), line(4, y, 52, y));
  return studio;
}

/** Share of the ultramarine in a clean brush's load after one stroke over a passage: what it picked up. */
function pickedUp(ground: Ground, ...before: CommandInput[]): number {
  const studio = covered(ground, { PB29: 1 });
  paint(studio, ...before, ...loaded('filbert', 9, { PW6: 1 }, { amount: 0.6 }), line(8, 20, 48, 20));
  const { mixture } = studio.tools.carried();
  return (mixture.PB29 ?? 0) / Object.values(mixture).reduce((a, b) => a + b, 0);
}

/** Hours until a film is dry to the touch, to a tenth more. */
function hoursToDry(ground: Ground, mixture: Record<string, number>, more: Parameters<typeof loaded>[3] = {}): number {
  const studio = covered(ground, mixture, more);
  let hours = 1;
  for (let waited = 0; hours < 2000; hours *= 1.3) {
    paint(studio, { do: 'wait', seconds: (hours - waited) * HOUR });
    waited = hours;
    if (wetness(studio) < 0.05) break;
  }
  return hours;
}

export const DRYING: readonly Behaviour[] = [
  {
    id: 'open-time',
    says: 'Oil stays open while one works, and dries in days by pigment; acrylic skins in minutes.',
    measure(ground) {
      const oil = covered(ground, { PW6: 1 });
      paint(oil, { do: 'wait', seconds: 1800 });
      const acrylic = (seconds: number, more = {}) => {
        const studio = covered(ground, { PW6: 1 }, { vehicle: 'acrylic', ...more });
        paint(studio, { do: 'wait', seconds });
        return wetness(studio);
      };
      return [
        { what: 'wetness of oil after half an hour', value: wetness(oil), least: 0.99 },
        { what: 'wetness of acrylic after two minutes', value: acrylic(120), least: 0.5 },
        { what: 'wetness of acrylic after an hour', value: acrylic(HOUR), most: 0.15 },
        {
          what: 'wetness of acrylic with retarder after ten minutes',
          value: acrylic(600, { retarder: 1 }),
          least: 0.5,
        },
      ];
    },
  },
  {
    id: 'days',
    says: 'Umber dries before titanium white, lean before fat, thin before thick.',
    measure(ground) {
      const coarse = { ...ground, ppi: Math.min(ground.ppi, 100) };
      const white = hoursToDry(coarse, { PW6: 1 });
      const umber = hoursToDry(coarse, { PBr7BU: 1 });
      const lean = hoursToDry(coarse, { PW6: 1 }, { solvent: 0.6 });
      return [
        { what: 'titanium white', value: white / 24, unit: 'days', least: 1, most: 14 },
        { what: 'umber to white', value: umber / white, most: 0.75 },
        { what: 'thinned with solvent to not', value: lean / white, most: 0.8 },
      ];
    },
  },
  {
    id: 'tacky',
    says: 'Wet paint mixes, tacky paint grabs and gives little, dry paint gives nothing.',
    measure(ground) {
      const wet = pickedUp(ground);
      const tacky = pickedUp(ground, { do: 'wait', seconds: 60 * HOUR });
      const dry = pickedUp(ground, { do: 'dry' });
      const left = (...before: CommandInput[]) => {
        const studio = covered(ground, { PB29: 1 });
        paint(
          studio,
          ...before,
          ...loaded('flat', 12, { PW6: 1 }, { amount: 0.3, body: 0.7 }),
          line(8, 20, 48, 20, 0.3),
        );
        return mean(values(studio, 'PW6', [14, 17, 28, 6]));
      };
      return [
        { what: 'picked up from tacky to from wet', value: tacky / wet, least: 0.005, most: 0.5 },
        { what: 'picked up from dry', value: dry, most: 0.01 },
        {
          what: 'left on tacky to left on dry',
          value: left({ do: 'wait', seconds: 60 * HOUR }) / left({ do: 'dry' }),
          least: 1.05,
        },
      ];
    },
  },
  {
    id: 'rag',
    says: 'A rag wipes lights out of wet paint; with solvent it takes tacky paint too; dry paint stays.',
    measure(ground) {
      const taken = (solvent: number, ...before: CommandInput[]) => {
        const studio = groundFor(ground, 56, 40);
        paint(studio, ...field([3, 3, 50, 34], { PBr7BU: 1, PB29: 0.3 }, 14, 0.3), ...before);
        const mass = () => mean(values(studio, 'PBr7BU', [18, 17, 20, 6]));
        const had = mass();
        for (let k = 0; k < 2; k++)
          paint(studio, { do: 'tool', tool: 'rag', sizeMm: 14, solvent }, line(8, 20, 48, 20, 0.7));
        return had > 0 ? 1 - mass() / had : 0;
      };
      const wait: CommandInput = { do: 'wait', seconds: 60 * HOUR };
      return [
        { what: 'taken wet, dry rag', value: taken(0), least: 0.5 },
        { what: 'taken wet, with solvent', value: taken(1), least: 0.8 },
        { what: 'taken tacky, dry rag', value: taken(0, wait), most: 0.4 },
        { what: 'taken tacky, with solvent', value: taken(1, wait), least: 0.5 },
        { what: 'taken dry, with solvent', value: taken(1, { do: 'dry' }), most: 0 },
      ];
    },
  },
];
