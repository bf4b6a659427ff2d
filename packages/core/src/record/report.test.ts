import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { dunlin, event, finding, takenIn } from '../testing/machines';
import { recordOf } from './report';
import { recordMarkdown } from './reportMarkdown';

test('the record keeps everything that a look showed, every beginning, and what was real but not the cause', () => {
  const gears = event('finding-recorded', {
    key: 'look-gears@extruder',
    result: 'cracked',
    also: ['worn'],
    finished: true,
  });
  const fan = finding('feel-fan@sink', 'dusty');
  const lean = finding('free-air@nozzle', 'leans', 40);
  const record = recordOf(dunlin, catalogue, [
    takenIn(dunlin, { symptoms: ['thin'], onset: 'slowly', onsets: ['one-spool'] }),
    gears,
    fan,
    event('finding-marked', { findingId: fan.id, innocent: true }),
    lean,
  ]);
  expect(record.began).toBe('Slowly over months; Only on one spool');
  expect(record.findings.map(({ result }) => result)).toEqual([
    'Arm cracked; Teeth worn (beside a good one)',
    'Dusty but turning, quieter once clean (real, but not the cause)',
    'Leans steadily',
  ]);
  expect(record.findings[2]).toMatchObject({ value: 40, unit: 'degrees' });
});

test('a mark taken back leaves the finding as it was', () => {
  const fan = finding('feel-fan@sink', 'dusty');
  const marked = event('finding-marked', { findingId: fan.id, innocent: true });
  const record = recordOf(dunlin, catalogue, [
    takenIn(dunlin),
    fan,
    marked,
    event('event-withdrawn', { eventId: marked.id }),
  ]);
  expect(record.findings.map(({ result }) => result)).toEqual(['Dusty but turning, quieter once clean']);
});

test('what a finding was in one’s own words stands with it, and among the notes once the finding is taken back', () => {
  const gears = finding('look-gears@extruder', 'unlisted');
  const said = event('note-added', { findingId: gears.id, text: 'a washer between the halves' });
  const other = event('note-added', { text: 'tea' });
  const order = [takenIn(dunlin), gears, said, other];
  const record = recordOf(dunlin, catalogue, order);
  expect(record.findings.map(({ result }) => result)).toEqual([
    'Something else is wrong here: a washer between the halves',
  ]);
  expect(record.notes).toEqual(['tea']);
  const withdrawn = recordOf(dunlin, catalogue, [...order, event('event-withdrawn', { eventId: gears.id })]);
  expect(withdrawn.notes).toEqual(['a washer between the halves', 'tea']);
});

test('name, address and currency of the shop stand on what is printed, and nowhere while the shop has none', () => {
  const order = [takenIn(dunlin), event('closed', { outcome: 'given-back', minutes: 30 })];
  const bare = recordOf(dunlin, catalogue, order);
  expect(bare.shop).toBeUndefined();
  expect(recordMarkdown(bare)).not.toMatch(/\*\*By:/);
  expect(recordMarkdown(bare)).toMatch(/Together: 18\.00$/m);
  const terms = catalogue.terms.map((one) => ({
    ...one,
    shop: 'Repairs at the Quay',
    address: 'Quay 4',
    currency: 'crowns',
  }));
  const printed = recordMarkdown(recordOf(dunlin, { ...catalogue, terms }, order));
  expect(printed).toContain('- **By:** Repairs at the Quay, Quay 4');
  expect(printed).toMatch(/Together: 18\.00 crowns$/m);
});
