import { expect, test } from '@playwright/test';
import { testServer, type TestServer } from './server';

let server: TestServer;
test.beforeAll(async () => {
  server = await testServer('stops');
});
test.afterAll(() => server.stop());

test('a stop finishes and answers what it took, and takes nothing more', async () => {
  const id = '5a170001-0000-4000-8000-0000000000aa';
  // The first record after a start takes a second: the thread that prints it has to come up.
  await server.stop();
  await server.start();
  const printing = fetch(`${server.url}/api/orders/${id}/record.pdf`);
  // Asked afterwards and answered: so the first is on its way.
  expect((await fetch(`${server.url}/api/health`)).status).toBe(200);
  const stopped = server.stop();
  const record = await printing;
  expect(record.status).toBe(200);
  expect(
    Buffer.from(await record.arrayBuffer())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  await stopped;
  await expect(fetch(`${server.url}/api/health`)).rejects.toThrow();
  await server.start();
});
