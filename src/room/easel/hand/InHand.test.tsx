// @vitest-environment jsdom
import { act, fireEvent, render, screen } from '@testing-library/react';
import { describe, expect, it } from 'vitest';
import { onEasel } from '@/room/testEasel';
import { useEasel } from '@/room/easel/easelStore';
import { takeTool } from '@/room/easel/hand/taking';
import { InHand } from './InHand';

const text = (id: string) => screen.getByTestId(id).textContent;

describe('what is in hand', () => {
  it('is told with what it carries and what it is painted on', () => {
    onEasel();
    render(<InHand />);
    expect(screen.getByRole('heading', { name: 'Flat' })).toBeTruthy();
    const bare = text('carried');
    act(() => useEasel.getState().loadMixture({ PB29: 2, PW6: 1 }));
    expect(text('carried')).not.toBe(bare);
    expect(text('carried')).toContain('Ultramarine');
    expect(screen.getByText('on: Paint, bare')).toBeTruthy();
    act(() => useEasel.getState().apply({ do: 'layer.set', layer: 'L2', locked: true, visible: false }));
    expect(screen.getByText('on: Paint, bare, hidden, locked')).toBeTruthy();
  });

  it('is reloaded, wiped and rinsed by its buttons', () => {
    const { said } = onEasel();
    render(<InHand />);
    for (const name of ['Reload', 'Wipe', 'Rinse']) fireEvent.click(screen.getByRole('button', { name }));
    expect(said.map(({ do: act }) => act)).toEqual(['load', 'wipe', 'rinse']);
  });

  it('has the dials and ways that the tool declares, and sets them', () => {
    const { said, studio } = onEasel();
    render(<InHand />);
    const before = studio.tools.current.sizeMm;
    const size = screen.getByRole('slider', { name: 'Size' });
    fireEvent.keyDown(size, { key: 'Home', keyCode: 36 });
    fireEvent.keyUp(size, { key: 'Home', keyCode: 36 });
    expect(said.at(-1)).toMatchObject({ do: 'tool', tool: 'flat' });
    expect(studio.tools.current.sizeMm).toBeLessThan(before);
    act(() => takeTool('knife'));
    expect(screen.getByRole('heading', { name: /knife/i })).toBeTruthy();
    expect(screen.getByRole('radiogroup')).toBeTruthy();
  });

  it('takes sizes from a list behind the number', async () => {
    const { studio } = onEasel();
    render(<InHand />);
    for (const [name, mm] of [
      ['fine, 1 mm', 1],
      ['house, 50 mm', 50],
    ] as const) {
      fireEvent.click(screen.getByRole('button', { name: /^Sizes to take/ }));
      fireEvent.click((await screen.findAllByText(name)).at(-1)!);
      expect(studio.tools.current.sizeMm).toBe(mm);
    }
  });

  it('takes water where it paints with washes', () => {
    const { said } = onEasel('paper-cold');
    render(<InHand />);
    act(() => takeTool('wash-round'));
    fireEvent.click(screen.getByRole('button', { name: 'Water' }));
    expect(said.at(-1)).toMatchObject({ do: 'rinse', damp: expect.any(Number) });
  });
});
