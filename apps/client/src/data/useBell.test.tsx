import { act, render } from '../testing/render';
import { useBell } from './useBell';

const mockAwake: string[] = [];
jest.mock('expo-keep-awake', () => ({
  activateKeepAwakeAsync: async () => void mockAwake.push('on'),
  deactivateKeepAwake: async () => void mockAwake.push('off'),
}));

const vibrate = jest.fn();
beforeEach(() => {
  jest.useFakeTimers({ now: new Date('2026-11-25T10:00:00') });
  vibrate.mockReset();
  Object.defineProperty(globalThis, 'navigator', { value: { vibrate }, configurable: true });
});
afterEach(() => jest.useRealTimers());

function Bell({ ends }: { readonly ends: readonly number[] }) {
  useBell(ends.map((endsMs, i) => ({ id: String(i), label: 'soak', endsMs })) as never);
  return null;
}
const pass = (ms: number): void => act(() => jest.advanceTimersByTime(ms));

test('a timer that runs out while the page is open rings once; one that had run out before does not', () => {
  const now = Date.now();
  const { rerender } = render(<Bell ends={[now - 1000, now + 60_000]} />);
  pass(59_000);
  expect(vibrate).not.toHaveBeenCalled();
  // Drawn anew with the same timers it does not begin again.
  rerender(<Bell ends={[now - 1000, now + 60_000]} />);
  pass(2000);
  expect(vibrate).toHaveBeenCalledTimes(1);
  pass(600_000);
  expect(vibrate).toHaveBeenCalledTimes(1);
});

test('a timer that is stopped does not ring', () => {
  const now = Date.now();
  const { rerender } = render(<Bell ends={[now + 60_000]} />);
  rerender(<Bell ends={[]} />);
  pass(120_000);
  expect(vibrate).not.toHaveBeenCalled();
});
