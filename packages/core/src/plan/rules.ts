import { couplerTravel } from '../physics/tubePlan';
import type { Station } from '../path/machine';
import type { Route } from '../path/route';
import { withSizes } from '../path/toolSizes';

/** How a nozzle is tightened, by hot-end kind (common practice, no source); the maker's figure goes before all of these. */
const NOZZLE_RULES: Readonly<Record<string, string>> = {
  'two-piece':
    'Two-piece: a quarter turn back from the block, heat break down to the nozzle, tightened hot against it.',
  'one-piece': 'One piece with its heat break: the maker’s torque, cold; or finger-tight, since heat tightens it.',
  'quick-change': 'Quick-change: nothing is tightened; clip home, flat against the sink.',
  bolted: 'Bolted hot end: renewed whole by its own screws, crosswise; the nozzle itself is not turned.',
};
const NOZZLE_UNKNOWN =
  'Two-piece nozzles are tightened hot against the heat break; one-piece ones cold, to the maker’s torque or finger-tight.';

/** How far the spring screw of the extruder goes (common practice, no source). */
const SPRING_RULES: Readonly<Record<string, string>> = {
  home: 'On this machine the spring screw goes home.',
  threads: 'On this machine three to four threads of the spring screw stay showing.',
  turns: 'On this machine the turns of the spring screw are counted when it comes out, and the same go in.',
};
const SPRING_UNKNOWN =
  'Some spring screws go home, some leave three to four threads showing: count the turns as it comes out.';

const stationOf = (route: Route, kind: Station['kind']): Station | undefined =>
  route.stops.find((stop) => stop.station.kind === kind)?.station;

const couplerRule = (): string =>
  `Three quarters of a turn moves the tube end ${couplerTravel('M10', 0.75).toFixed(2)} mm (M10 × 1): travel, not force.`;

/** What a remedy's words leave to the machine: `{nozzle-rule}`, `{spring-rule}`, `{coupler-rule}`, and sizes. */
export function withRules(text: string, route: Route, station?: Station): string {
  const nozzle = stationOf(route, 'nozzle')?.params?.nozzleKind;
  const spring = stationOf(route, 'extruder')?.params?.springRule;
  return withSizes(text, route, station)
    .replaceAll('{nozzle-rule}', (nozzle && NOZZLE_RULES[nozzle]) ?? NOZZLE_UNKNOWN)
    .replaceAll('{spring-rule}', (spring && SPRING_RULES[spring]) ?? SPRING_UNKNOWN)
    .replaceAll('{coupler-rule}', couplerRule());
}
