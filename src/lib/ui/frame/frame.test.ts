import { describe, expect, it } from 'vitest';
import { gridAct } from '../kit/grid-keys';
import { ACTIONS, heldBy, isCharacter, keyOf, pressed, STEPS } from './keys';

const event = (key: string, more: Partial<KeyboardEvent> = {}) => ({
  key,
  code: '',
  altKey: false,
  ctrlKey: false,
  metaKey: false,
  shiftKey: false,
  ...more,
});

describe('keys', () => {
  it('are written as they are pressed; digits by their place, since Alt may write another sign', () => {
    expect(pressed(event('?', { shiftKey: true }))).toBe('?');
    expect(pressed(event('¡', { altKey: true, code: 'Digit1' }))).toBe('Alt+1');
    expect(pressed(event('z', { metaKey: true, code: 'KeyZ' }))).toBe('Ctrl+Z');
    expect(pressed(event('ArrowRight'))).toBe('ArrowRight');
  });
  it('go to the steps of the path by their number', () => {
    STEPS.forEach(({ id }, i) => expect(ACTIONS[`go ${id}`]!.key).toBe(`Alt+${i + 1}`));
  });
  // WCAG 2.2, 2.1.4: single characters can be switched off and changed.
  it('of a single character can be switched off and changed', () => {
    const choices = { charactersOff: false, keys: {} as Record<string, string> };
    expect(keyOf('intake check', choices)).toBe('y');
    expect(keyOf('intake check', { ...choices, charactersOff: true })).toBe('');
    expect(keyOf('go intake', { ...choices, charactersOff: true })).toBe('Alt+2');
    expect(keyOf('intake check', { ...choices, keys: { 'intake check': 'l' } })).toBe('l');
  });
  it('are not given to two actions of one place', () => {
    const none = { charactersOff: false, keys: {} };
    expect(heldBy('intake check', 'b', none)).toBe('intake bin');
    expect(heldBy('intake check', '?', none)).toBe('keys');
    expect(heldBy('intake check', 'm', none)).toBeUndefined();
    for (const id of Object.keys(ACTIONS))
      if (ACTIONS[id]!.key) expect(heldBy(id, ACTIONS[id]!.key, none), id).toBeUndefined();
  });
  it('hold no sequence of letters', () => {
    for (const { key } of Object.values(ACTIONS))
      expect(key === '' || isCharacter(key) || !/^\w{2,}$/.test(key) || key.startsWith('Arrow')).toBe(true);
  });
});

describe('a grid', () => {
  // WAI-ARIA Authoring Practices, grid: arrows, Home, End, page keys, Space, Shift with arrows.
  it.each([
    ['ArrowDown', 3, 4],
    ['ArrowUp', 0, 0],
    ['PageDown', 3, 9],
    ['PageUp', 3, 0],
    ['Home', 7, 0],
    ['End', 0, 9],
  ])('moves with %s', (key, at, to) =>
    expect(gridAct(event(key), at, 10, 8)).toEqual({ kind: 'move', to, extends: false }),
  );
  it('selects, opens, extends, and leaves other keys alone', () => {
    expect(gridAct(event(' '), 0, 10, 8)).toEqual({ kind: 'select' });
    expect(gridAct(event('Enter'), 0, 10, 8)).toEqual({ kind: 'open' });
    expect(gridAct(event('ArrowDown', { shiftKey: true }), 0, 10, 8)).toMatchObject({ extends: true });
    expect(gridAct(event('j'), 0, 10, 8)).toBeUndefined();
    expect(gridAct(event('ArrowDown', { altKey: true }), 0, 10, 8)).toBeUndefined();
    expect(gridAct(event('ArrowDown'), 0, 0, 8)).toBeUndefined();
  });
});
