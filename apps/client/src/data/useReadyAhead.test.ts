import { nextToTrace } from './useReadyAhead';

const order = (id: string, machineId: string, phase: 'trace' | 'plan' = 'trace') => ({ id, machineId, phase }) as never;

test('the tracer makes ready for three machines that are being traced, the longest waiting first, each once', () => {
  const list = ['dunlin', 'dunlin', 'whelk', 'knot', 'cockle', 'limpet'].map((machine, i) =>
    order(String(i), machine, i === 3 ? 'plan' : 'trace'),
  );
  expect(nextToTrace(list)).toEqual(['0', '2', '4']);
  expect(nextToTrace([])).toEqual([]);
});
