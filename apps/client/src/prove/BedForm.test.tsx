import type { EventBodies, Proof } from '@zealous/core';
import { fireEvent, render, screen } from '@testing-library/react-native';
import { BedForm } from './BedForm';
import { RunForm } from './RunForm';

const proof: Proof = { id: 'height', name: 'Height', how: '', minutes: 12, heat: 'hot', power: 'on', form: 'bed' };

test('the bed counts as even only when the second round is: three points, and what drifted is shown', () => {
  const sent: EventBodies['proof-recorded'][] = [];
  render(
    <BedForm
      proof={proof}
      record={(_type, body) => String(sent.push(body as EventBodies['proof-recorded']))}
      onNotCured={jest.fn()}
    />,
  );
  const even = (): ReturnType<typeof screen.getByRole> =>
    screen.getByRole('button', { name: 'Even in the second round' });
  const enter = (point: string, first: string, second: string): void => {
    fireEvent.changeText(screen.getByLabelText(`${point}, first round`), first);
    fireEvent.changeText(screen.getByLabelText(`${point}, second round`), second);
  };
  enter('front left', '0.12', '0,02');
  enter('front right', '-0.04', '0.09');
  enter('middle', '0', '0.01');
  expect(screen.getByText(/go round once more/)).toBeTruthy();
  fireEvent.press(even());
  expect(sent).toEqual([]);
  enter('front right', '-0.04', '0.03');
  fireEvent.press(even());
  expect(sent[0]).toMatchObject({ proof: 'height', passed: true });
  expect(sent[0]?.points).toContainEqual({ name: 'front left', first: 0.12, second: 0.02 });
});

test('a fault that took 240 minutes is not proved by 240', () => {
  const record = jest.fn(() => '');
  render(<RunForm proof={{ ...proof, because: [], longerThanMin: 240 }} record={record} onNotCured={jest.fn()} />);
  const sound = (): ReturnType<typeof screen.getByRole> =>
    screen.getByRole('button', { name: 'It ran past that, sound' });
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '240');
  fireEvent.press(sound());
  expect(record).not.toHaveBeenCalled();
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '255');
  fireEvent.press(sound());
  expect(record).toHaveBeenCalledWith('proof-recorded', { proof: 'height', passed: true, ranMinutes: 255 });
});
