import { dunlin, whelk } from '../testing/machines';
import { keptMachine } from './kept';

test('a description that comes again is the same object; another is another', () => {
  const first = keptMachine(dunlin);
  expect(keptMachine(JSON.parse(JSON.stringify(dunlin)))).toBe(first);
  expect(keptMachine(whelk)).not.toBe(first);
  expect(keptMachine({ ...dunlin, name: 'Other' })).not.toBe(first);
});
