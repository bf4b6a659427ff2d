import { Text } from 'react-native';
import { act, render, screen } from '../testing/render';
import { useTween } from './useTween';

function Shown({ to }: { readonly to: readonly number[] }) {
  return <Text testID="shown">{useTween(to).join()}</Text>;
}
const shown = (): readonly number[] => String(screen.getByTestId('shown').props.children).split(',').map(Number);

let frames: ((at: number) => void)[] = [];
const frameAt = (ms: number): void => {
  const now = frames;
  frames = [];
  act(() => now.forEach((step) => step(ms)));
};

beforeEach(() => {
  frames = [];
  jest.spyOn(performance, 'now').mockReturnValue(1000);
  jest.spyOn(globalThis, 'requestAnimationFrame').mockImplementation((step) => frames.push(step));
});
afterEach(() => jest.restoreAllMocks());

test('the drawing that brings new values has moved already; it arrives, and nothing is drawn after that', () => {
  render(<Shown to={[0, 1]} />);
  expect(frames).toEqual([]);
  screen.rerender(<Shown to={[1, 1]} />);
  const [first] = shown();
  expect(first).toBeGreaterThan(0);
  expect(first).toBeLessThan(0.2);
  expect(shown()[1]).toBe(1);
  frameAt(1200);
  const [half = 0] = shown();
  expect(half).toBeGreaterThan(first ?? 1);
  expect(half).toBeLessThan(1);
  // New values on the way: it goes on from where it is.
  screen.rerender(<Shown to={[0, 1]} />);
  expect(shown()[0]).toBeLessThan(half);
  expect(shown()[0]).toBeGreaterThan(half / 2);
  frameAt(1600);
  expect(shown()).toEqual([0, 1]);
  expect(frames).toEqual([]);
});

test('another path is drawn at once, and with reduced motion every value', () => {
  render(<Shown to={[0, 1]} />);
  screen.rerender(<Shown to={[0.5]} />);
  expect(shown()).toEqual([0.5]);
  expect(frames).toEqual([]);
  globalThis.matchMedia = (() => ({ matches: true })) as never;
  screen.rerender(<Shown to={[0.9]} />);
  expect(shown()).toEqual([0.9]);
  expect(frames).toEqual([]);
  delete (globalThis as { matchMedia?: unknown }).matchMedia;
});
