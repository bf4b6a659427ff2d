import type { Check, Normal } from '../catalogue/types';
import type { Machine } from '../path/machine';
import type { Route } from '../path/route';
import { heaterOhms, thermistorOhms } from '../physics/electric';
import { pullForce } from '../physics/force';

/** How far a sound machine may be from what is worked out for it: friction and bends are known roughly (chosen). */
const FORCE_SPREAD = 0.35;
const OHMS_SPREAD = 0.06;

/** What a sound machine reads at a check, worked out from its description; undefined when the description does not tell. */
export function predicted(check: Check, machine: Machine, route: Route, index: number): Normal | undefined {
  const { params } = route.stops[index]?.station ?? {};
  switch (check.quantity?.predict) {
    case 'pull-force': {
      const mean = pullForce(route.stops.slice(0, index).map(({ station }) => station));
      return { mean, sd: mean * FORCE_SPREAD };
    }
    case 'thermistor-ohms': {
      const mean = thermistorOhms(machine.heat.ambientC) / 1000;
      return { mean, sd: mean * OHMS_SPREAD };
    }
    case 'heater-ohms': {
      if (!params?.heaterV || !params.heaterW) return undefined;
      const mean = heaterOhms(params.heaterV, params.heaterW);
      return { mean, sd: mean * OHMS_SPREAD };
    }
    default:
      return undefined;
  }
}
