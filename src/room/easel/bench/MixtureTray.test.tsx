// @vitest-environment jsdom
import { DndContext } from '@dnd-kit/core';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onEasel } from '@/room/testEasel';
import { useEasel } from '@/room/easel/easelStore';
import { MixtureTray } from './MixtureTray';

const tray = () =>
  render(
    <DndContext>
      <MixtureTray />
    </DndContext>,
  );
const total = (parts: Record<string, number>) => Object.values(parts).reduce((a, b) => a + b, 0);

describe('the mixture in hand', () => {
  it('is told by its tubes, and loads the brush', () => {
    const { said, studio } = onEasel();
    tray();
    expect(screen.getByTestId('mixture').textContent).toMatch(/White.*Ultramarine|Ultramarine.*White/);
    fireEvent.click(screen.getByRole('button', { name: 'Load the brush' }));
    expect(said.at(-1)).toMatchObject({ do: 'load', mixture: { PB29: 1, PW6: 3 } });
    expect(studio.tools.carried().level).toBeGreaterThan(0.5);
  });

  it('says which tube nudges it, adds as much as it says, and loads that', () => {
    const { said } = onEasel();
    tray();
    const button = screen.getByRole('button', { name: /^Make it lighter: / });
    const before = useEasel.getState().parts;
    fireEvent.click(button);
    const after = useEasel.getState().parts;
    const grown = Object.keys(after).filter((tube) => after[tube] > (before[tube] ?? 0));
    expect(grown).toHaveLength(1);
    expect(total(after)).toBeGreaterThan(total(before));
    expect(said.at(-1)).toMatchObject({ do: 'load', mixture: after });
  });

  it('without paint says so, and cannot be loaded', () => {
    onEasel();
    tray();
    act(() => useEasel.getState().setParts({}));
    expect(screen.getByTestId('mixture').textContent).toBe('choose tubes');
    expect(screen.getByText('no paint')).toBeTruthy();
    expect((screen.getByRole('button', { name: 'Load the brush' }) as HTMLButtonElement).disabled).toBe(true);
  });

  it('is changed by numbers', async () => {
    onEasel();
    tray();
    fireEvent.click(screen.getByRole('button', { name: /^Mixture by parts/ }));
    const white = await screen.findByRole('spinbutton', { name: /White/ });
    fireEvent.change(white, { target: { value: '7' } });
    expect(useEasel.getState().parts).toEqual({ PB29: 1, PW6: 7 });
    fireEvent.click(screen.getByRole('button', { name: /Leave out .*Ultramarine/ }));
    expect(useEasel.getState().parts).toEqual({ PW6: 7 });
  });
});
