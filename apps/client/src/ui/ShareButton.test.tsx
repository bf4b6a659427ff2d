import { fireEvent, render, screen } from '../testing/render';
import { ShareButton } from './ShareButton';

const device = (has: object): void => {
  Object.defineProperty(globalThis, 'navigator', { value: has, configurable: true });
};
const send = (): void => {
  render(<ShareButton label="Send" what={() => ({ title: 'Order 7', text: '# Order 7' })} copied="It is copied." />);
  fireEvent.press(screen.getByRole('button', { name: 'Send' }));
};

test('it goes out by what the device shares with', () => {
  const share = jest.fn(async () => undefined);
  device({ share });
  send();
  expect(share.mock.calls).toEqual([[{ title: 'Order 7', text: '# Order 7' }]]);
  expect(screen.queryByText('It is copied.')).toBeNull();
});

test('else it is copied, and where that is not to be had it is shown', async () => {
  const writeText = jest.fn(async () => undefined);
  device({ clipboard: { writeText } });
  send();
  expect(await screen.findByText('It is copied.')).toBeTruthy();
  expect(writeText.mock.calls).toEqual([['# Order 7']]);
  screen.unmount();
  device({});
  send();
  expect(await screen.findByText('# Order 7')).toBeTruthy();
});

test('given up by hand nothing is said; refused, it is shown', async () => {
  device({ share: async () => Promise.reject(Object.assign(new Error(), { name: 'AbortError' })) });
  send();
  await Promise.resolve();
  expect(screen.queryByText('# Order 7')).toBeNull();
  screen.unmount();
  device({ share: async () => Promise.reject(new Error('not allowed')) });
  send();
  expect(await screen.findByText('# Order 7')).toBeTruthy();
});
