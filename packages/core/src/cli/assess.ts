/**
 * `npm run --silent assess -- FILE.json [--quick] [--left-out]`: reads a work order in the published format, prints its
 * assessment as JSON, two checks ahead as the app gives it; one ahead with `--quick`. `--left-out` adds the share of what is
 * believed that the search for sets of faults leaves out.
 */
import { readFileSync } from 'node:fs';
import { FormatError, parseJson, parseOrder } from '../formats/index';
import {
  assess,
  benchToDecide,
  deliveredCatalogue,
  judge,
  massLeftOut,
  RefusedEvent,
  reduceOrder,
  workOut,
  type Machine,
  type OrderState,
} from '../index';
import type { OrderEvent } from '../order/events';

/** Wrong use or a bad file; 1 is left for faults of the program. */
const EXIT_BAD_FILE = 2;

function run(file: string, quick: boolean, leftOut: boolean): unknown {
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
  const { stations, causes, elsewhere, sets, cleared, checks, advice } = assess(
    order.machine,
    deliveredCatalogue,
    state,
    benchToDecide(order.machine, state, state.lastMs),
    quick ? { depth: 1, quick: true } : { depth: 2 },
  );
  return {
    format: 'zealous-tracer/assessment',
    version: 1,
    stations,
    causes,
    elsewhere,
    sets,
    cleared,
    checks,
    advice,
    ...(leftOut ? left(order.machine, state) : {}),
  };
}

/** Share that the usual search leaves out, as it expects itself, and against a much wider one. */
function left(machine: Machine, state: OrderState) {
  const { model, evidence, suspicion } = workOut(machine, deliveredCatalogue, state);
  return {
    massLeftOut: massLeftOut(model.causes, model.prior, evidence, model.removed),
    expectedLeftOut: suspicion.leftOut,
  };
}

const FLAGS = ['--quick', '--left-out'];
const flags = process.argv.slice(2).filter((arg) => arg.startsWith('--'));
const [file, ...rest] = process.argv.slice(2).filter((arg) => !arg.startsWith('--'));
if (!file || rest.length > 0 || flags.some((flag) => !FLAGS.includes(flag))) {
  console.error('Say which file: npm run --silent assess -- FILE.json [--quick] [--left-out]');
  process.exitCode = EXIT_BAD_FILE;
} else {
  try {
    console.log(JSON.stringify(run(file, flags.includes('--quick'), flags.includes('--left-out')), null, 2));
  } catch (error) {
    const known = error instanceof FormatError || (error as NodeJS.ErrnoException).code !== undefined;
    if (!known) throw error;
    console.error(`${file}: ${(error as Error).message}`);
    process.exitCode = EXIT_BAD_FILE;
  }
}
