import { fireEvent, render, screen } from '../testing/render';
import { Choice } from './Choice';

const options = [
  { id: 'pla', label: 'PLA' },
  { id: 'petg', label: 'PETG' },
] as const;

test('one of several: the chosen one is said to be chosen, a tap gives the other', () => {
  const onToggle = jest.fn();
  render(<Choice label="Material" options={options} chosen={['pla']} onToggle={onToggle} />);
  expect(screen.getByRole('radio', { name: 'PLA', checked: true })).toBeTruthy();
  fireEvent.press(screen.getByRole('radio', { name: 'PETG', checked: false }));
  expect(onToggle).toHaveBeenCalledWith('petg');
});

test('where several may apply they are check boxes', () => {
  render(<Choice label="Seen" several options={options} chosen={['pla', 'petg']} onToggle={jest.fn()} />);
  expect(screen.getAllByRole('checkbox', { checked: true })).toHaveLength(2);
});
