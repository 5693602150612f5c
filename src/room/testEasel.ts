import { cleanup } from '@testing-library/react';
import { vi } from 'vitest';
import { commandSchema, type Command } from '@/core/commands/commands';
import { PainterError } from '@/core/errors';
import type { Studio } from '@/core/journal/studio';
import type { SurfaceKind } from '@/core/surface/heightField';
import { benchState } from '@/engine/benchState';
import type { EngineClient } from '@/engine/client';
import { Pace } from '@/engine/time/pace';
import { WaterClock } from '@/engine/time/waterClock';
import { studioFor } from '@/measure/bench';
import { useEasel } from '@/room/easel/easelStore';

/** What components are tested with: a document, and an easel whose engine is a studio that answers at once. */

/** Clears away what the last test has shown, and gives the document what it lacks without a screen. */
function freshDocument(): void {
  cleanup();
  Element.prototype.setPointerCapture = () => {};
  const deaf = { addListener() {}, removeListener() {}, addEventListener() {}, removeEventListener() {} };
  vi.stubGlobal('matchMedia', () => ({ matches: false, ...deaf }));
  vi.stubGlobal(
    'ResizeObserver',
    class {
      observe() {}
      unobserve() {}
      disconnect() {}
    },
  );
}

export interface TestEasel {
  readonly studio: Studio;
  /** What the page has asked the engine to do. */
  readonly said: Command[];
  /** What the engine was told of a layer that is only tried. */
  readonly tried: unknown[];
}

/** Sets a small painting on the easel. */
export function onEasel(kind: SurfaceKind = 'linen-fine'): TestEasel {
  freshDocument();
  const studio = studioFor(30, 20, { ppi: 60, surface: { kind } });
  const said: Command[] = [];
  const tried: unknown[] = [];
  const [pace, clock] = [new Pace(), new WaterClock()];
  const tell = () => useEasel.setState({ bench: benchState(studio, pace, clock) });
  const engine: Partial<EngineClient> = {
    apply(command) {
      said.push(command);
      try {
        studio.apply(commandSchema.parse(command));
      } catch (error) {
        if (!(error instanceof PainterError)) throw error;
        useEasel.setState({ refused: error.message });
      }
      tell();
    },
    tryLook: (layer, look) => void tried.push({ layer, ...look }),
    without: (layers) => void tried.push({ without: layers }),
    look: () => 1,
    setRules() {},
    bringPaint() {},
  };
  const { spec, width, height } = studio.painting;
  useEasel.setState({
    engine: engine as EngineClient,
    opened: { spec, width, height, slab: { widthMm: 60, heightMm: 40 } },
    refused: '',
    panel: null,
    parts: { PB29: 1, PW6: 3 },
  });
  tell();
  return { studio, said, tried };
}
