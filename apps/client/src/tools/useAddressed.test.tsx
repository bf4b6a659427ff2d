import { act, renderHook } from '@testing-library/react-native';
import { useAddressedChoice, useAddressedFigures } from './useAddressed';

const mockSet = jest.fn();
let mockParams: Record<string, string> = {};
jest.mock('expo-router', () => ({
  useLocalSearchParams: () => mockParams,
  useRouter: () => ({ setParams: mockSet }),
}));
beforeEach(() => {
  mockSet.mockReset();
  mockParams = {};
});

const START = { bore: 2, length: undefined, seat: 12 };
const figures = () =>
  renderHook(() => useAddressedFigures(START, (_, n) => (n >= 0 ? undefined : 'must be 0 or more'))).result;

test('figures come from the address where it tells them and they fit, else from the start; emptied is not untold', () => {
  mockParams = { bore: '1.9', length: '-4', seat: '' };
  expect(figures().current[0]).toEqual({ bore: 1.9, length: undefined, seat: undefined });
  mockParams = { bore: 'wide', length: '430' };
  expect(figures().current[0]).toEqual({ bore: 2, length: 430, seat: 12 });
});

test('what is typed stands in the address, what is as at the start does not; read again it is the same', () => {
  const shown = figures();
  act(() => shown.current[2]('length', 430.5));
  act(() => shown.current[2]('seat', undefined));
  act(() => shown.current[2]('bore', 2));
  expect(shown.current[0]).toEqual({ bore: 2, length: 430.5, seat: undefined });
  const written = Object.assign({}, ...mockSet.mock.calls.map(([params]) => params as object));
  expect(written).toEqual({ length: '430.5', seat: '', bore: undefined });
  // What does not fit is neither reckoned with nor written.
  act(() => shown.current[2]('length', -4));
  expect(shown.current[0].length).toBe(430.5);
  expect(mockSet.mock.lastCall).toEqual([written]);
  const { bore: _, ...address } = written as Record<string, string>;
  mockParams = address;
  expect(figures().current[0]).toEqual(shown.current[0]);
});

test('a choice that nobody knows is not taken from the address', () => {
  const choice = () => renderHook(() => useAddressedChoice('cut', 'square', ['square', 'bevel'])).result;
  mockParams = { cut: 'torn' };
  expect(choice().current[0]).toBe('square');
  mockParams = { cut: 'bevel' };
  const shown = choice();
  expect(shown.current[0]).toBe('bevel');
  act(() => shown.current[1]('square'));
  expect(mockSet).toHaveBeenLastCalledWith({ cut: undefined });
});
