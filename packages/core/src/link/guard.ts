import { limitsOf } from '../bench/action';
import { unmet } from '../bench/price';
import type { Bench } from '../bench/state';
import type { Material } from '../catalogue/types';
import type { Machine } from '../path/machine';
import type { Route } from '../path/route';
import type { LineIntent } from './protocol';

/** So far at once, and so fast (chosen: a strand’s way through the longest path, and no faster than gears feed). */
export const MOST_FEED_MM = 1500;
export const MOST_MM_PER_S = 15;
/** A target is met within this. */
const NEAR_C = 12;
const STEPS = { least: 1, most: 20_000 } as const;

/**
 * Why the machine must not be asked for something as it stands; undefined when it may. The same invariants as in every plan: no heat
 * with a plug loose, the heater off its mount or a part wet; never above the path’s limits; nothing fed into a cold nozzle or
 * out of an open path.
 *
 * @param bench with the temperature that the machine itself reports
 */
export function lineRefusal(
  machine: Machine,
  route: Route,
  material: Material,
  bench: Bench,
  intent: LineIntent,
): string | undefined {
  switch (intent.do) {
    case 'target': {
      if (intent.c === 0) return undefined;
      const { longC } = limitsOf(machine, route);
      if (!(intent.c > 0)) return 'A target is zero or above.';
      if (intent.c > longC) return `This path takes ${longC} °C for long, and ${Math.round(intent.c)} °C were asked.`;
      return said(unmet({ heat: 'hot', power: 'on', hotC: 0 }, bench, machine));
    }
    case 'feed': {
      if (!(Math.abs(intent.mm) > 0 && Math.abs(intent.mm) <= MOST_FEED_MM))
        return `Between 0 and ${MOST_FEED_MM} mm are fed at once.`;
      if (!(intent.mmPerS > 0 && intent.mmPerS <= MOST_MM_PER_S)) return `At most ${MOST_MM_PER_S} mm/s are fed.`;
      const open = machine.parts.find(({ id, severs }) => severs && bench.off.has(id) && !bench.absent?.has(id));
      if (open) return `The path lies open: ${open.name} is off, and the strand would run out there.`;
      const hotC = Math.min(material.printC, limitsOf(machine, route).longC);
      if (bench.temperatureC < hotC - NEAR_C)
        return `It is at ${Math.round(bench.temperatureC)} °C, and this filament is fed at ${Math.round(hotC)} °C: into a cold nozzle the strand only grinds.`;
      return said(unmet({ heat: 'hot', power: 'on', hotC: 0 }, bench, machine));
    }
    case 'store-steps':
      return intent.stepsPerMm >= STEPS.least && intent.stepsPerMm <= STEPS.most
        ? undefined
        : `Between ${STEPS.least} and ${STEPS.most} steps a millimetre are stored.`;
    default:
      return undefined;
  }
}

const said = (reason: string | undefined): string | undefined => reason?.replace(/^needs/, 'It needs');
