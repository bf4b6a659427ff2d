import type { Machine } from '../path/machine';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C, secondsToCool } from '../physics/heat';
import { partsToRemove } from './closure';

/** What the bench is like at one moment. */
export interface Bench {
  readonly temperatureC: number;
  readonly power: 'on' | 'off';
  /** Ids of the parts that are off. */
  readonly off: ReadonlySet<string>;
  /** Where it is heating to, 0 when it is not. */
  readonly targetC?: number;
  /** False when only the clock says that it is cold. */
  readonly coldSure?: boolean;
}

export interface Need {
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off' | 'on';
  readonly parts: readonly string[];
  /** Temperature wanted when hot. */
  readonly hotC: number;
}

export interface Price {
  readonly heatingMin: number;
  readonly coolingMin: number;
  readonly openingMin: number;
  /** Closing what this alone opened. */
  readonly closingMin: number;
  readonly powerMin: number;
  readonly opened: readonly string[];
  readonly after: Bench;
}

/** Minutes to find the switch and wait for the machine to start, or to shut it down and unplug (chosen). */
export const POWER_MIN = 0.5;
/** Within this of the wanted temperature no more heating is counted. */
export const NEAR_C = 10;

/** Whether a state of the machine meets a need for heat and power, and if not, why, in words for the step. */
export function unmet(
  need: Pick<Need, 'heat' | 'power' | 'hotC'>,
  bench: Pick<Bench, 'temperatureC' | 'power' | 'coldSure'>,
): string | undefined {
  const now = `${Math.round(bench.temperatureC)} °C`;
  if (need.heat === 'cold' && bench.temperatureC > SAFE_TO_TOUCH_C)
    return `needs the hot end cold: recorded ${now}, safe to touch below ${SAFE_TO_TOUCH_C} °C`;
  if (need.heat === 'cold' && bench.coldSure === false)
    return `needs the hot end cold: by the clock it is at about ${now}, and a reading has to say so`;
  if (need.heat === 'hot' && bench.temperatureC < need.hotC - NEAR_C)
    return `needs the hot end at ${Math.round(need.hotC)} °C: recorded ${now}`;
  if (need.power === 'off' && bench.power === 'on')
    return bench.temperatureC > SWITCH_OFF_BELOW_C
      ? `needs the machine off, and it must cool below ${SWITCH_OFF_BELOW_C} °C first: recorded ${now}`
      : 'needs the machine off and unplugged: recorded as on';
  if (need.power === 'on' && bench.power === 'off') return 'needs the machine switched on: recorded as off';
  return undefined;
}

/**
 * What it takes to come from the present bench to one where something can be done: the needs of the parts first, then
 * those of the work. Minutes of heating and cooling are waiting, the rest is hands-on.
 */
export function priceOf(machine: Machine, bench: Bench, need: Need): Price {
  let { temperatureC, power } = bench;
  let heatingMin = 0;
  let coolingMin = 0;
  let powerMin = 0;
  const { ambientC, coolTauS, heatUpCPerS } = machine.heat;
  const bring = (heat: Need['heat'], wanted: Need['power'], hotC: number): void => {
    if (wanted === 'off' && power === 'on') cool(SWITCH_OFF_BELOW_C);
    if (heat === 'cold') cool(SAFE_TO_TOUCH_C);
    const powerWanted = heat === 'hot' ? 'on' : wanted;
    if (powerWanted !== 'any' && powerWanted !== power) {
      power = powerWanted;
      powerMin += POWER_MIN;
    }
    if (heat === 'hot' && temperatureC < hotC - NEAR_C) {
      heatingMin += (hotC - temperatureC) / heatUpCPerS / 60;
      temperatureC = hotC;
    }
  };
  const cool = (toC: number): void => {
    if (temperatureC <= toC) return;
    coolingMin += secondsToCool(temperatureC, toC, ambientC, coolTauS) / 60;
    temperatureC = toC;
  };
  const parts = partsToRemove(machine, need.parts, bench.off);
  for (const part of parts) bring(part.heat, part.power, need.hotC);
  bring(need.heat, need.power, need.hotC);
  return {
    heatingMin,
    coolingMin,
    powerMin,
    openingMin: parts.reduce((sum, part) => sum + part.minutesOff, 0),
    closingMin: parts.reduce((sum, part) => sum + part.minutesOn, 0),
    opened: parts.map((part) => part.id),
    after: {
      temperatureC,
      power,
      off: parts.length ? new Set([...bench.off, ...parts.map((part) => part.id)]) : bench.off,
    },
  };
}

/** Bench minutes: hands-on minutes in full, waiting at half, since something else can be done meanwhile (chosen). */
export const WAITING_RATE = 0.5;

export const benchMinutes = (price: Price): number =>
  price.openingMin + price.powerMin + WAITING_RATE * (price.heatingMin + price.coolingMin);
