import { dunlin } from '../testing/machines';
import { placeInMachine } from './place';

const run = dunlin.runs.findIndex(({ stations }) => stations.some(({ kind }) => kind === 'tube'));
const at = dunlin.runs[run]?.stations.findIndex(({ kind }) => kind === 'tube') ?? -1;
const tube = dunlin.runs[run]?.stations[at];

test.each([
  [`/machine/runs/${run}/stations/${at}/params/lengthMm`, `${tube?.name}, length along the path`],
  [`/runs/${run}/stations/${at}/params/boreMm`, `${tube?.name}, bore`],
  [`/runs/${run}/stations/${at}/access/open/0`, `${tube?.name}, what must be off to look inside`],
  [`/runs/${run}/stations/${at}`, tube?.name],
  [`/runs/${run}/into`, `${dunlin.runs[run]?.name}, where it leads`],
  ['/parts/0/after/1', `${dunlin.parts[0]?.name}, what must be off first`],
  ['/machine/strandMm', 'the machine’s filament diameter'],
  ['/heat/limitC', 'the machine’s heat limit'],
])('%s is told in words', (path, words) => {
  expect(placeInMachine(dunlin, path)).toBe(words);
});

test.each(['', '/machine', '/runs/99/into', '/parts/99', '/runs/0/stations/99/params/boreMm'])(
  'what names nothing of the machine is not told: “%s”',
  (path) => {
    const words = placeInMachine(dunlin, path);
    expect(words === undefined || words.startsWith(dunlin.runs[0]?.name ?? '-')).toBe(true);
  },
);
