import { withShopChanges, type ShopChange } from '../catalogue/shop';
import type { Catalogue } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { laneRuns, routeOf } from '../path/route';
import { causesOf } from '../observation/causes';
import { decide } from '../decision/decide';
import { modelOf, stationShares } from '../decision/model';
import { checksFor } from '../bench/places';
import { weigh } from '../inference/suspicion';

export interface Preview {
  /** Stations of the machine whose suspicion before any finding moves, most first. */
  readonly stations: readonly { readonly name: string; readonly from: number; readonly to: number }[];
  /** The first checks that would be offered to a machine of which nothing is known. */
  readonly before: readonly string[];
  readonly after: readonly string[];
}

const FIRST_CHECKS = 5;

function blank(machine: Machine, catalogue: Catalogue) {
  const lane = laneRuns(machine)[0]?.id;
  const route = routeOf(machine, lane);
  const kase = { machine, catalogue, ...(lane === undefined ? {} : { lane }), symptoms: [], before: [] };
  const causes = causesOf(kase, route);
  const model = modelOf(kase, route, causes, checksFor(catalogue, machine, route));
  const suspicion = weigh(causes, model.prior, []);
  const bench = { temperatureC: machine.heat.ambientC, power: 'off' as const, off: new Set<string>() };
  const { checks } = decide(model, suspicion, bench, [], new Set(), new Set());
  return {
    stations: stationShares(model, suspicion),
    names: route.stops.map((stop) => stop.station.name),
    checks: checks.slice(0, FIRST_CHECKS).map((check) => check.place.name),
  };
}

/** What a change to the catalogue would change on a machine of which nothing is known yet. */
export function previewChange(machine: Machine, catalogue: Catalogue, change: ShopChange): Preview {
  const now = blank(machine, catalogue);
  const changed = withShopChanges(catalogue, {
    format: 'zealous-tracer/shop-catalogue',
    version: 1,
    changes: [change],
  });
  const then = blank(machine, changed);
  const stations = now.names
    .map((name, i) => ({ name, from: now.stations[i] ?? 0, to: then.stations[i] ?? 0 }))
    .filter(({ from, to }) => Math.abs(to - from) >= 0.002)
    .sort((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from));
  return { stations, before: now.checks, after: then.checks };
}
