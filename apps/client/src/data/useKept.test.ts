import { act, renderHook } from '@testing-library/react-native';
import { keepingDevice } from '../testing/device';
import { useKept } from './useKept';

keepingDevice();

test('what was typed is there when the page is drawn anew, and gone once forgotten', () => {
  const first = renderHook(() => useKept('pad', ''));
  act(() => first.result.current[1]((was) => `${was}9`));
  act(() => first.result.current[1]((was) => `${was}0`));
  first.unmount();
  const second = renderHook(() => useKept('pad', ''));
  expect(second.result.current[0]).toBe('90');
  act(() => second.result.current[2]());
  second.unmount();
  expect(renderHook(() => useKept('pad', '')).result.current[0]).toBe('');
});

test('two fields do not mix, and the oldest of many goes', () => {
  for (let i = 0; i < 40; i++) {
    const { result } = renderHook(() => useKept(`field ${i}`, 0));
    act(() => result.current[1](i + 1));
  }
  expect(renderHook(() => useKept('field 39', 0)).result.current[0]).toBe(40);
  expect(renderHook(() => useKept('field 12', 0)).result.current[0]).toBe(13);
  expect(renderHook(() => useKept('field 3', 0)).result.current[0]).toBe(0);
});
