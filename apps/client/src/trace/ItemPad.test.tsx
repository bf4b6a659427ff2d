import { checkById, deliveredCatalogue } from '@zealous/core';
import { fireEvent, render, screen } from '../testing/render';
import { useState } from 'react';
import { View } from 'react-native';
import { ItemFoot, ItemTicks, type ItemsSeen } from './ItemPad';

const results = checkById(deliveredCatalogue, 'look-gears')?.results ?? [];

function Pad({ onResult }: { readonly onResult: (result: string, value?: number, more?: ItemsSeen) => void }) {
  const [ticked, setTicked] = useState<readonly string[]>([]);
  return (
    <View>
      <ItemTicks results={results} ticked={ticked} onTicked={setTicked} />
      <ItemFoot results={results} ticked={ticked} onResult={onResult} />
    </View>
  );
}

const names = () =>
  screen.getAllByRole('checkbox').map((box) => box.props['aria-label'] ?? box.props.accessibilityLabel);

test('several things of one look are said together, in the order of the look, and that this is all', () => {
  const onResult = jest.fn();
  render(<Pad onResult={onResult} />);
  fireEvent.press(screen.getByLabelText('Teeth worn (beside a good one)'));
  fireEvent.press(screen.getByLabelText('Arm cracked'));
  fireEvent.press(screen.getByText('That is all I see'));
  expect(onResult).toHaveBeenCalledWith('cracked', undefined, { also: ['worn'], finished: true });
});

test('a look that was not finished says nothing of the rest; nothing seen is one tap', () => {
  const onResult = jest.fn();
  render(<Pad onResult={onResult} />);
  fireEvent.press(screen.getByText('Clean and sound'));
  expect(onResult).toHaveBeenLastCalledWith('clean');
  fireEvent.press(screen.getByLabelText('Teeth packed'));
  fireEvent.press(screen.getByText('I did not look at the rest'));
  expect(onResult).toHaveBeenLastCalledWith('fouled', undefined, { finished: false });
  fireEvent.press(screen.getByLabelText('Teeth packed'));
  expect(screen.getByText('Clean and sound')).toBeTruthy();
});

test('of more things than a glance takes in the likely ones stand first, and stay as they stood once one is ticked', () => {
  const likely = (worn: number) => [
    { result: 'cracked', probability: 0.1 },
    { result: 'worn', probability: worn },
  ];
  const pad = (outcomes: ReturnType<typeof likely>, ticked: readonly string[] = []) => (
    <ItemTicks results={results} outcomes={outcomes} ticked={ticked} onTicked={() => undefined} />
  );
  render(pad([]));
  expect(names()[0]).toBe('Arm cracked');
  screen.rerender(pad(likely(0.4)));
  expect(names().slice(0, 2)).toEqual(['Teeth worn (beside a good one)', 'Arm cracked']);
  screen.rerender(pad(likely(0.01), ['worn']));
  expect(names()[0]).toBe('Teeth worn (beside a good one)');
});

test('few things keep the order of the look', () => {
  const few = checkById(deliveredCatalogue, 'look-guides')?.results ?? [];
  render(
    <ItemTicks
      results={few}
      outcomes={[{ result: 'kinked', probability: 1 }]}
      ticked={[]}
      onTicked={() => undefined}
    />,
  );
  expect(names()).toEqual(few.slice(0, -1).map(({ label }) => label));
});
