import type { Machine } from '../path/machine';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C, secondsToCool } from '../physics/heat';
import { partsToRefit, partsToRemove, sitsBehind, type OpenPart } from './closure';
import { heaterOff, inTheWayOf, looseConnectors, looseHeaters, strandSettled, type Bench } from './state';

export interface Need {
  readonly heat: 'any' | 'cold' | 'hot';
  readonly power: 'any' | 'off' | 'on';
  readonly parts: readonly string[];
  /** Temperature wanted when hot. */
  readonly hotC: number;
  /** Lanes whose strand must be out, or a remnant that is accounted for. */
  readonly clear?: readonly string[];
  /** A push by hand from above, in the head: it stands raised and supported. */
  readonly push?: boolean;
  /** It looks at the heating itself, so that it is done with a heater or a reading at fault too. */
  readonly ofHeat?: boolean;
}

export interface Price {
  readonly heatingMin: number;
  readonly coolingMin: number;
  readonly openingMin: number;
  /** Closing what this alone opened. */
  readonly closingMin: number;
  readonly powerMin: number;
  /** Finding out whether filament is in the way, and taking it out. */
  readonly clearMin: number;
  /** Raising the head and supporting it. */
  readonly raiseMin: number;
  readonly opened: readonly string[];
  readonly after: Bench;
  /** What goes back first, since it keeps heat or power away. */
  readonly back?: readonly string[];
  /** It asks for open what its own heat or power wants closed. */
  readonly impossible?: boolean;
}

/** Minutes to find the switch and wait for the machine to start, or to shut it down and unplug (chosen). */
export const POWER_MIN = 0.5;
/** Minutes to see whether filament is in a path, to take it out, and to raise and support the head (chosen). */
export const LOOK_MIN = 1;
export const UNLOAD_MIN = 2;
export const RAISE_MIN = 1;
/** Within this of the wanted temperature no more heating is counted. */
export const NEAR_C = 10;

/** Minutes to put parts back on. */
export function closingMinutes(machine: Machine, off: Iterable<string>): number {
  let sum = 0;
  for (const id of off) sum += machine.parts.find((part) => part.id === id)?.minutesOn ?? 0;
  return sum;
}

const names = (list: readonly { readonly name: string }[]): string => list.map(({ name }) => name).join(', ');

/** Whether a need asks for heat that cannot be had: heater or reading is at fault, and it is not that which is looked at. */
const withoutHeat = ({ heat, ofHeat }: Pick<Need, 'heat' | 'ofHeat'>, { heatSpoiled }: Partial<Bench>): boolean =>
  heat === 'hot' && heatSpoiled === true && ofHeat !== true;

/** Why the machine as it stands open must not have heat or power; undefined when it may. */
export function openAgainst(
  need: Pick<Need, 'heat' | 'power' | 'ofHeat'>,
  bench: Pick<Bench, 'off'> & Partial<Bench>,
  machine: Machine,
): string | undefined {
  if (need.heat !== 'hot' && need.power !== 'on') return undefined;
  const loose = looseConnectors(machine, bench);
  if (loose.length > 0) return `needs every plug in its socket before the power is on: ${names(loose)} hang loose`;
  const away = need.heat === 'hot' ? heaterOff(machine, bench) : [];
  if (away.length > 0) return `needs heat, and ${names(away)} is off its mount: it goes back first`;
  const slack = need.heat === 'hot' ? looseHeaters(machine, bench) : [];
  if (slack.length > 0) return `needs heat, and screws of ${names(slack)} are out: they go in first`;
  if (withoutHeat(need, bench)) return 'needs heat, and the heating is at fault: nothing is heated before it is mended';
  return (bench.wet?.size ?? 0) > 0
    ? 'needs the wet part dry first: solvent vapour burns near heat and power'
    : undefined;
}

/**
 * Whether a state of the machine meets a need for heat and power, and if not, why, in words for the step. With the machine
 * given, also whether what is off or unplugged allows it.
 */
export function unmet(
  need: Pick<Need, 'heat' | 'power' | 'hotC' | 'ofHeat'>,
  bench: Pick<Bench, 'temperatureC' | 'power' | 'coldSure'> & Partial<Bench>,
  machine?: Machine,
): string | undefined {
  const now = `${Math.round(bench.temperatureC)} °C`;
  const open = machine && openAgainst(need, { ...bench, off: bench.off ?? NONE }, machine);
  if (open !== undefined) return open;
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

const KEYS = new WeakMap<Bench, string>();

/** Two benches of which this is the same have the same prices. */
export function benchKey(bench: Bench): string {
  let key = KEYS.get(bench);
  if (key === undefined) KEYS.set(bench, (key = keyOf(bench)));
  return key;
}

const keyOf = ({ temperatureC, power, off, absent, service, ways, strand, supported, heatSpoiled }: Bench): string =>
  [
    temperatureC,
    power,
    heatSpoiled === true,
    [...off].sort().join(),
    [...(absent ?? [])].sort().join(),
    [...(service ?? [])].sort().join(),
    ways ? JSON.stringify(ways) : '',
    strand ? JSON.stringify(strand) : '',
    supported === true,
  ].join('|');

/**
 * What it takes to come from the present bench to one where something can be done: what is in the way of heat or power goes
 * back, then the needs of the parts, then those of the work. Minutes of heating and cooling are waiting, the rest is hands-on.
 * `impossible` when the need itself asks for open what must be closed for its heat or power, or for heat while the heating is at fault.
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
  const back = refitted(machine, bench, need);
  const { lanes, minutes: clearMin, hot } = toClear(bench, need);
  const raiseMin = need.push && !bench.supported ? RAISE_MIN : 0;
  const closed = new Set(back.map(({ id }) => id));
  const off = closed.size ? new Set([...bench.off].filter((id) => !closed.has(id))) : bench.off;
  for (const part of back) bring(part.heat, part.power, need.hotC);
  // A strand that is known to reach the head leaves it molten, where the head can be heated as it stands.
  if (hot && !bench.heatSpoiled && inTheWayOf(machine, { ...bench, off }, { heat: 'hot', power: 'on' }).length === 0)
    bring('hot', 'on', need.hotC);
  const parts = partsToRemove(machine, need.parts, off);
  for (const part of parts) bring(part.heat, part.power, need.hotC);
  const after = parts.length ? new Set([...off, ...parts.map((part) => part.id)]) : off;
  bring(need.heat, need.power, need.hotC);
  const service = serviceFor(machine, need);
  return {
    heatingMin,
    coolingMin,
    powerMin,
    clearMin,
    raiseMin,
    openingMin:
      back.reduce((sum, part) => sum + part.minutesOn, 0) + parts.reduce((sum, part) => sum + part.minutesOff, 0),
    closingMin: parts.reduce((sum, part) => sum + part.minutesOn, 0),
    opened: parts.map((part) => part.id),
    after: {
      temperatureC,
      power,
      off: after,
      ...(bench.strand || lanes.length
        ? { strand: { ...bench.strand, ...Object.fromEntries(lanes.map((lane) => [lane, 'out' as const])) } }
        : {}),
      ...(bench.supported || need.push ? { supported: true } : {}),
      ...(bench.heatSpoiled ? { heatSpoiled: true } : {}),
    },
    ...(back.length > 0 ? { back: back.map(({ id }) => id) } : {}),
    ...(inTheWayOf(machine, { off: after, service }, need).length > 0 || withoutHeat(need, bench)
      ? { impossible: true }
      : {}),
  };
}

/** What it takes to have the strand of some lanes out of the way: an unknown one is looked for and reckoned with. */
function toClear(
  bench: Bench,
  { clear = NO_LANES }: Need,
): { readonly lanes: readonly string[]; readonly minutes: number; readonly hot: boolean } {
  const lanes = clear.length ? clear.filter((lane) => !strandSettled(bench, lane)) : clear;
  const unknown = lanes.some((lane) => bench.strand?.[lane] === undefined);
  return {
    lanes,
    minutes: (unknown ? LOOK_MIN : 0) + (lanes.length ? UNLOAD_MIN : 0),
    hot: lanes.some((lane) => bench.strand?.[lane] === 'in'),
  };
}
const NO_LANES: readonly string[] = [];

const NONE: ReadonlySet<string> = new Set();
const servicePartsOf = new WeakMap<Machine, readonly string[]>();
const serviceParts = (machine: Machine): readonly string[] => {
  const known =
    servicePartsOf.get(machine) ?? machine.parts.flatMap(({ id, service }) => (service === undefined ? [] : [id]));
  servicePartsOf.set(machine, known);
  return known;
};

/** The parts of a need that may be heated off their mount, in their service position. */
export function serviceFor(machine: Machine, need: Pick<Need, 'heat' | 'parts'>): ReadonlySet<string> {
  if (need.heat !== 'hot' || need.parts.length === 0) return NONE;
  const ids = serviceParts(machine).filter((id) => need.parts.includes(id));
  return ids.length ? new Set(ids) : NONE;
}

/** What is off and must be back on before heat or power, with everything that sits over it, in an order in which it goes back. */
function refitted(machine: Machine, bench: Bench, need: Need): readonly OpenPart[] {
  if (bench.off.size === 0 || (need.heat !== 'hot' && need.power !== 'on')) return [];
  const service = serviceFor(machine, need);
  const wanted = new Set(inTheWayOf(machine, { ...bench, service }, need).filter((id) => !need.parts.includes(id)));
  if (wanted.size === 0) return [];
  // What sits behind a part goes back before it.
  const order = partsToRefit(machine, bench.off, bench.ways);
  return order.filter((part, i) =>
    order
      .slice(i)
      .some((later) => wanted.has(later.id) && (later.id === part.id || sitsBehind(part.id, later.id, order))),
  );
}

/** Bench minutes: hands-on minutes in full, waiting at half, since something else can be done meanwhile (chosen). */
export const WAITING_RATE = 0.5;

/** An impossible need counts as this many minutes: more than any plan (chosen). */
const IMPOSSIBLE_MIN = 10_000;

export const benchMinutes = (price: Price): number =>
  price.openingMin +
  price.powerMin +
  price.clearMin +
  price.raiseMin +
  WAITING_RATE * (price.heatingMin + price.coolingMin) +
  (price.impossible ? IMPOSSIBLE_MIN : 0);
