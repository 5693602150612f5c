// @vitest-environment jsdom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onEasel } from '@/room/testEasel';
import { useEasel } from '@/room/easel/easelStore';
import { LayerCard } from './LayerCard';

/** The card of the layer that is painted on, as the drawer shows it. */
function Card() {
  const bench = useEasel((s) => s.bench)!;
  const layer = bench.layers.find(({ id }) => id === bench.activeLayer)!;
  return <LayerCard layer={layer} layers={bench.layers} onMask={bench.onMask} />;
}

const active = () => {
  const { bench } = useEasel.getState();
  return bench!.layers.find(({ id }) => id === bench!.activeLayer)!;
};

describe('the card of a layer', () => {
  it('says everything that can be said of it', () => {
    onEasel();
    render(<Card />);
    for (const [label, key] of [
      ['Clip to the layer below', 'clip'],
      ['Only where there is paint', 'onlyPaint'],
      ['Wet through', 'wetThrough'],
      ['Impress', 'impress'],
      ['Locked', 'locked'],
    ] as const) {
      const before = active()[key];
      fireEvent.click(screen.getByRole('checkbox', { name: label }));
      expect(active()[key], label).toBe(!before);
      // a locked layer must be opened again
      fireEvent.click(screen.getByRole('checkbox', { name: label }));
      expect(active()[key], label).toBe(before);
    }
  });

  it('tries an opacity while it is held, and keeps it once it is let go', () => {
    const { said, tried } = onEasel();
    render(<Card />);
    const opacity = screen.getByRole('slider', { name: 'Opacity' });
    fireEvent.keyDown(opacity, { key: 'ArrowLeft', keyCode: 37 });
    expect(tried.at(-1)).toEqual({ layer: 'L2', opacity: 0.99 });
    expect(said).toEqual([]);
    fireEvent.keyUp(opacity, { key: 'ArrowLeft', keyCode: 37 });
    expect(said).toEqual([{ do: 'layer.set', layer: 'L2', opacity: 0.99 }]);
    expect(active().opacity).toBeCloseTo(0.99);
  });

  it('goes on to its mask and back', () => {
    onEasel();
    render(<Card />);
    act(() => useEasel.getState().apply({ do: 'layer.mask', layer: 'L2', how: 'show' }));
    const button = () => screen.getByRole('button', { name: 'Paint the mask' });
    if (useEasel.getState().bench!.onMask) fireEvent.click(button());
    fireEvent.click(button());
    expect(useEasel.getState().bench!.onMask).toBe(true);
    fireEvent.click(screen.getByRole('radio', { name: 'white' }));
    expect(useEasel.getState().bench!.tool.grey).toBe(1);
    fireEvent.click(screen.getByRole('button', { name: 'Off' }));
    expect(active().mask?.on).toBe(false);
    fireEvent.click(screen.getByRole('button', { name: 'Take off' }));
    expect(active().mask).toBeUndefined();
  });

  it('makes another layer of it, and says in place what cannot be done', () => {
    const { studio } = onEasel();
    render(<Card />);
    fireEvent.click(screen.getByRole('button', { name: 'Duplicate' }));
    expect(studio.painting.layers).toHaveLength(3);
    fireEvent.click(screen.getByRole('button', { name: /^Remove/ }));
    fireEvent.click(screen.getByRole('button', { name: /^Remove/ }));
    fireEvent.click(screen.getByRole('button', { name: /^Remove/ }));
    expect(studio.painting.layers.length).toBeGreaterThan(0);
    expect(useEasel.getState().refused).not.toBe('');
  });
});
