/** `npm run --silent assess -- FILE.json`: reads a work order in the published format, prints its assessment as JSON. */
import { readFileSync } from 'node:fs';
import { FormatError, parseJson, parseOrder } from '../formats/index';
import { assess, benchAt, deliveredCatalogue, judge, RefusedEvent, reduceOrder } from '../index';
import type { OrderEvent } from '../order/events';

/** Wrong use or a bad file; 1 is left for faults of the program. */
const EXIT_BAD_FILE = 2;

function run(file: string): unknown {
  const order = parseOrder(parseJson(readFileSync(file, 'utf8')));
  const before: OrderEvent[] = [];
  order.events.forEach((event, i) => {
    try {
      judge(order.machine, deliveredCatalogue, before, event);
    } catch (error) {
      if (error instanceof RefusedEvent) throw new FormatError(`/events/${i}${error.path}`, error.message);
      throw error;
    }
    before.push(event);
  });
  const state = reduceOrder(order.machine, deliveredCatalogue, order.events);
  const { stations, causes, elsewhere, cleared, checks, advice } = assess(
    order.machine,
    deliveredCatalogue,
    state,
    benchAt(order.machine, state, state.lastMs),
  );
  return { format: 'zealous-tracer/assessment', version: 1, stations, causes, elsewhere, cleared, checks, advice };
}

const [file, ...rest] = process.argv.slice(2);
if (!file || rest.length > 0) {
  console.error('Say which file: npm run --silent assess -- FILE.json');
  process.exitCode = EXIT_BAD_FILE;
} else {
  try {
    console.log(JSON.stringify(run(file), null, 2));
  } catch (error) {
    const known = error instanceof FormatError || (error as NodeJS.ErrnoException).code !== undefined;
    if (!known) throw error;
    console.error(`${file}: ${(error as Error).message}`);
    process.exitCode = EXIT_BAD_FILE;
  }
}
