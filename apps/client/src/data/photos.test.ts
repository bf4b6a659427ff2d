import { keepPhoto, runPhotoOutbox, waitingPhoto, whyRefused } from './photos';

jest.mock('idb-keyval', () => {
  const stores = new Map<string, Map<string, unknown>>();
  const at = (store: string): Map<string, unknown> => {
    const known = stores.get(store) ?? new Map<string, unknown>();
    stores.set(store, known);
    return known;
  };
  return {
    createStore: (name: string) => name,
    get: async (key: string, store: string) => at(store).get(key),
    set: async (key: string, value: unknown, store: string) => void at(store).set(key, value),
    del: async (key: string, store: string) => void at(store).delete(key),
    keys: async (store: string) => [...at(store).keys()],
  };
});

const picture = 'a picture' as unknown as Blob;
const answer = (status: number, detail = '') => ({ ok: status < 300, status, json: async () => ({ detail }) });
const server = jest.fn();
let stop: () => void;

beforeEach(() => {
  jest.useFakeTimers();
  server.mockReset();
  global.fetch = server as unknown as typeof fetch;
  stop = runPhotoOutbox();
});
afterEach(() => {
  stop();
  jest.useRealTimers();
});
const settle = (ms = 0): Promise<void> => jest.advanceTimersByTimeAsync(ms);

test('a picture waits while the server is away, and is gone from the device once the server has it', async () => {
  server.mockRejectedValueOnce(new Error('away')).mockResolvedValueOnce(answer(503)).mockResolvedValueOnce(answer(201));
  await keepPhoto('order', 'one', picture);
  await settle();
  expect(await waitingPhoto('order', 'one')).toBe(picture);
  await settle(5000);
  expect(await waitingPhoto('order', 'one')).toBe(picture);
  await settle(5000);
  expect(await waitingPhoto('order', 'one')).toBeUndefined();
  await settle(60_000);
  expect(server).toHaveBeenCalledTimes(3);
});

test.each([409, 413, 415, 422])(
  '%i: one that the server will never have stays on the device with the reason, and is not sent again',
  async (status) => {
    server.mockResolvedValue(answer(status, 'This is no picture.'));
    await keepPhoto('order', `refused-${status}`, picture);
    await settle(60_000);
    expect(server).toHaveBeenCalledTimes(1);
    expect(await waitingPhoto('order', `refused-${status}`)).toBe(picture);
    expect(await whyRefused('order', `refused-${status}`)).toBe('This is no picture.');
  },
);

test('one taken while another is on its way goes next, without a wait', async () => {
  let first: (value: unknown) => void = () => undefined;
  server.mockImplementationOnce(() => new Promise((resolve) => (first = resolve))).mockResolvedValue(answer(201));
  await keepPhoto('order', 'three', picture);
  await settle();
  await keepPhoto('order', 'four', picture);
  first(answer(201));
  await settle(1);
  expect(server.mock.calls.map(([url]) => url)).toEqual([
    '/api/orders/order/photos/three',
    '/api/orders/order/photos/four',
  ]);
});
