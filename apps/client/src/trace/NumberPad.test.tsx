import { fireEvent, render, screen } from '../testing/render';
import { NumberPad } from './NumberPad';

const press = (...keys: string[]): void => keys.forEach((key) => fireEvent.press(screen.getByLabelText(key)));

function pad(onEnter = jest.fn()) {
  render(<NumberPad keep="depth" label="Depth" unit="mm" min={0} max={1000} onEnter={onEnter} />);
  return onEnter;
}

test('digits, point and erase make a number; it is entered with its unit', () => {
  const onEnter = pad();
  press('9', '0', 'point', '5', 'erase', '5');
  fireEvent.press(screen.getByLabelText('Enter 90.5 mm'));
  expect(onEnter).toHaveBeenCalledWith(90.5);
});

test('a second point is not taken', () => {
  const onEnter = pad();
  press('1', 'point', 'point', '2');
  fireEvent.press(screen.getByLabelText('Enter 1.2 mm'));
  expect(onEnter).toHaveBeenCalledWith(1.2);
});

test('nothing, or a number out of range, cannot be entered, and the range is said', () => {
  const onEnter = pad();
  fireEvent.press(screen.getByLabelText('Enter'));
  press('5', '0', '0', '0');
  expect(screen.getByText('Must lie between 0 and 1000 mm')).toBeTruthy();
  fireEvent.press(screen.getByLabelText('Enter'));
  expect(onEnter).not.toHaveBeenCalled();
});
