import { machineOfFamily, type Machine } from '@zealous/core';
import { sharing } from './useOrder';

test('orders of one machine hold it once, however often it was sent', () => {
  const sent = (id: string, name: string): Machine =>
    JSON.parse(JSON.stringify(machineOfFamily('bowden-open', id, name))) as Machine;
  const opened = (id: string, machine: Machine): Machine => sharing({ id, machine, events: [] } as never).machine;
  const first = opened('a', sent('m', 'M'));
  expect(opened('b', sent('m', 'M'))).toBe(first);
  expect(opened('c', sent('m', 'renamed'))).not.toBe(first);
});
