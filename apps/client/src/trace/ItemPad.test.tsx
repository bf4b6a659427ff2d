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
  fireEvent.press(screen.getByText('Not looked at the rest'));
  expect(onResult).toHaveBeenLastCalledWith('fouled', undefined, { finished: false });
  fireEvent.press(screen.getByLabelText('Teeth packed'));
  expect(screen.getByText('Clean and sound')).toBeTruthy();
});
