import { act, fireEvent, render, screen } from '../testing/render';
import { useState } from 'react';
import { OtherName } from './OtherName';

/** The name field with its state kept, and the name as it last stood. */
function field(first: string): { readonly by: () => string; readonly tap: (role: string) => void } {
  let now = first;
  let put: (by: string) => void = () => undefined;
  function Kept() {
    const [by, setBy] = useState(first);
    put = setBy;
    return (
      <OtherName
        by={by}
        onName={(name) => {
          now = name;
          setBy(name);
        }}
      />
    );
  }
  render(<Kept />);
  const tap = (role: string): void => {
    now = role;
    act(() => put(role));
  };
  return { by: () => now, tap };
}
const typed = () => screen.getByLabelText('Or another name for the record');

test('a name of two words is taken as it is typed, and emptied gives the first role', () => {
  const { by } = field('bench 2');
  for (const text of ['M', 'Ma ', 'Ma K', 'Ma Kay']) fireEvent.changeText(typed(), text);
  expect(by()).toBe('Ma Kay');
  expect(typed().props.value).toBe('Ma Kay');
  fireEvent.changeText(typed(), '');
  expect(by()).toBe('bench 1');
});

test('a name that the server would refuse is said to be, and the one before stays', async () => {
  const { by } = field('Ma Kay');
  fireEvent.changeText(typed(), 'x'.repeat(61));
  expect(await screen.findByText('Must be text of 1 to 60 characters.')).toBeTruthy();
  expect(by()).toBe('Ma Kay');
});

test('a role that is tapped empties the name', () => {
  const { by, tap } = field('Ma Kay');
  tap('apprentice');
  expect(typed().props.value).toBe('');
  // … and is not itself taken for an emptied name.
  expect(by()).toBe('apprentice');
});

test('opened under a role, the settings leave it as it is', () => {
  const { by } = field('bench 2');
  expect(by()).toBe('bench 2');
});
