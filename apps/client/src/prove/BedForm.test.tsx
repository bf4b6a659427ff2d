import type { EventBodies, Proof, ProofAsked } from '@zealous/core';
import { fireEvent, render, screen, waitFor } from '../testing/render';
import { keepingDevice } from '../testing/device';
import { BedForm } from './BedForm';
import { RunForm } from './RunForm';

keepingDevice();

const proof: Proof = { id: 'height', name: 'Height', how: '', minutes: 12, heat: 'hot', power: 'on', form: 'bed' };

test('the bed counts as even only when the second round is: three points, and what drifted is shown', async () => {
  const sent: EventBodies['proof-recorded'][] = [];
  render(
    <BedForm
      orderId="order"
      proof={proof}
      record={(_type, body) => String(sent.push(body as EventBodies['proof-recorded']))}
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
  await waitFor(() => expect(sent).toHaveLength(1));
  expect(sent[0]).toMatchObject({ proof: 'height', passed: true });
  expect(sent[0]?.points).toContainEqual({ name: 'front left', first: 0.12, second: 0.02 });
});

test('a bed that cannot be set is not passed, and does not say that what was repaired is back', () => {
  const record = jest.fn(() => '');
  render(<BedForm orderId="bent" proof={proof} record={record} />);
  fireEvent.press(screen.getByRole('button', { name: 'It cannot be set: the bed itself is at fault' }));
  expect(record.mock.calls).toEqual([['proof-recorded', { proof: 'height', passed: false }]]);
});

test('a fault that took 240 minutes is not proved by 240', async () => {
  const record = jest.fn(() => '');
  render(
    <RunForm
      orderId="order"
      proof={{ ...proof, cautions: [], because: [], longerThanMin: 240 }}
      record={record}
      onNotCured={jest.fn()}
    />,
  );
  const sound = (): ReturnType<typeof screen.getByRole> =>
    screen.getByRole('button', { name: 'It ran past that, sound' });
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '240');
  fireEvent.press(sound());
  expect(record).not.toHaveBeenCalled();
  fireEvent.changeText(screen.getByLabelText('It ran sound for, minutes'), '255');
  fireEvent.press(sound());
  await waitFor(() =>
    expect(record).toHaveBeenCalledWith('proof-recorded', { proof: 'height', passed: true, ranMinutes: 255 }),
  );
});

test('a number that is none, or out of range, is refused at its field in a whole sentence, and nothing is recorded', async () => {
  const record = jest.fn(() => '');
  const asked: ProofAsked = { ...proof, cautions: [], because: [], pastMm: 10 };
  render(<RunForm orderId="refused" proof={asked} record={record} onNotCured={jest.fn()} />);
  fireEvent.changeText(screen.getByLabelText('It reached a height of, mm'), '6000');
  fireEvent.press(screen.getByRole('button', { name: 'It ran past that, sound' }));
  expect(await screen.findByText('Must be a number from 0 to 5000.')).toBeTruthy();
  expect(record).not.toHaveBeenCalled();
});

test('what was typed is there again when the form is drawn anew, and gone once it is recorded', async () => {
  const form = (record: jest.Mock): void => {
    render(
      <RunForm
        orderId="kept"
        proof={{ ...proof, cautions: [], because: [] }}
        record={record as never}
        onNotCured={jest.fn()}
      />,
    );
  };
  const field = (): { readonly props: { readonly value?: string } } =>
    screen.getByLabelText('It ran sound for, minutes');
  form(jest.fn());
  fireEvent.changeText(field() as never, '75');
  screen.unmount();
  const record = jest.fn(() => '');
  form(record);
  expect(field().props.value).toBe('75');
  fireEvent.press(screen.getByRole('button', { name: 'It ran past that, sound' }));
  await waitFor(() => expect(record).toHaveBeenCalled());
  screen.unmount();
  form(jest.fn());
  expect(field().props.value).toBe('');
});
