import { unmet, type Bench, type Need } from '../access/bench';
import { partsToRefit, partsToRemove } from '../access/closure';
import { materialOf, modeById } from '../catalogue/index';
import type { Catalogue, Material } from '../catalogue/types';
import type { AccessPart, Fastener, Machine, Station } from '../path/machine';
import { routeOf, type Route, type Stop } from '../path/route';
import { SAFE_TO_TOUCH_C, SWITCH_OFF_BELOW_C, secondsToCool } from '../physics/heat';
import type { OrderState } from '../order/state';
import { caseOf } from '../trace/assess';
import { mouthFor } from '../trace/places';
import { needOf, rungsFor } from '../trace/repairs';
import { SAFETY_NOTE } from './cautions';

export type StepKind = 'heat' | 'cool' | 'power' | 'unload' | 'raise' | 'open' | 'rung' | 'close';

export interface PlanStep {
  readonly id: string;
  readonly phase: 'Make ready' | 'Open' | 'Clear or replace' | 'Close';
  readonly kind: StepKind;
  readonly title: string;
  readonly how: string;
  readonly station?: string;
  readonly part?: string;
  readonly remedy?: string;
  readonly need: Omit<Need, 'parts'>;
  readonly minutes: number;
  /** Waiting that goes on by itself, minutes. */
  readonly waitMinutes: number;
  readonly tools: readonly string[];
  readonly fasteners: readonly Fastener[];
  readonly cautions: readonly string[];
  readonly stop?: string;
  /** What ticking the step says about the bench. */
  readonly sets?: { readonly targetC?: number; readonly readingC?: number; readonly power?: 'on' | 'off' };
  readonly opens?: string;
  readonly closes?: string;
  readonly replaces?: string;
}

export interface Plan {
  readonly station: Station;
  readonly mode: string;
  readonly modeName: string;
  readonly steps: readonly PlanStep[];
  readonly tools: readonly string[];
  readonly handsOnMinutes: number;
  readonly waitingMinutes: number;
  readonly safety: string;
  /** The ladder has no rung left that fits. */
  readonly exhausted: boolean;
}

/** Hands-on minutes of the steps that every plan shares (estimates of this project). */
const UNLOAD_MIN = 2;
const RAISE_MIN = 1;
const TICK_MIN = 0.5;

class Writer {
  readonly steps: PlanStep[] = [];
  private counts = new Map<string, number>();
  bench: Bench;

  constructor(
    private readonly machine: Machine,
    bench: Bench,
  ) {
    this.bench = bench;
  }

  add(
    step: Omit<PlanStep, 'id' | 'tools' | 'fasteners' | 'cautions' | 'waitMinutes'> &
      Partial<PlanStep> & { readonly key: string },
  ): void {
    const { key, ...rest } = step;
    const n = (this.counts.get(key) ?? 0) + 1;
    this.counts.set(key, n);
    this.steps.push({
      tools: [],
      fasteners: [],
      cautions: [],
      waitMinutes: 0,
      ...rest,
      id: n === 1 ? key : `${key}#${n}`,
    });
  }

  /** Brings the planned bench to what comes next: cooling before off, off before cold work, on before heat. */
  bring(phase: PlanStep['phase'], heat: Need['heat'], power: Need['power'], hotC: number): void {
    const { machine } = this;
    // Cooling goes faster with the fans on: where it must be cold anyway, it is switched off only then.
    if (heat === 'cold') this.cool(phase, SAFE_TO_TOUCH_C);
    else if (power === 'off' && this.bench.power === 'on') this.cool(phase, SWITCH_OFF_BELOW_C);
    const wanted = heat === 'hot' ? 'on' : power;
    if (wanted !== 'any' && wanted !== this.bench.power) {
      const off = wanted === 'off';
      this.add({
        key: off ? 'off' : 'on',
        phase,
        kind: 'power',
        title: off ? 'Switch off and unplug' : 'Plug in and switch on',
        how: off
          ? 'Below 100 °C only; pull the plug by its body.'
          : 'Nothing loose near belts and fan. Hands clear while it homes.',
        need: { heat: 'any', power: 'any', hotC },
        minutes: TICK_MIN,
        sets: { power: wanted },
        cautions: off ? ['unplug'] : [],
      });
      this.bench = { ...this.bench, power: wanted };
    }
    if (heat === 'hot' && Math.abs(this.bench.temperatureC - hotC) > 10) {
      const up = hotC > this.bench.temperatureC;
      const wait = up
        ? (hotC - this.bench.temperatureC) / machine.heat.heatUpCPerS
        : secondsToCool(this.bench.temperatureC, hotC, machine.heat.ambientC, machine.heat.coolTauS);
      this.add({
        key: 'heat',
        phase,
        kind: 'heat',
        title: `Set the hot end to ${Math.round(hotC)} °C`,
        how: 'Look at actual and target: a low reading with target 0 means that nobody set it.',
        need: { heat: 'any', power: 'on', hotC },
        minutes: TICK_MIN,
        waitMinutes: wait / 60,
        sets: { targetC: Math.round(hotC) },
        cautions: ['hot'],
      });
      this.bench = { ...this.bench, temperatureC: hotC };
    }
  }

  private cool(phase: PlanStep['phase'], toC: number): void {
    const { ambientC, coolTauS } = this.machine.heat;
    if (this.bench.temperatureC <= toC) return;
    const touch = toC === SAFE_TO_TOUCH_C;
    this.add({
      key: touch ? 'cool-touch' : 'cool-off',
      phase,
      kind: 'cool',
      title: touch
        ? `Cool to safe to touch, below ${SAFE_TO_TOUCH_C} °C`
        : `Cool below ${SWITCH_OFF_BELOW_C} °C before switching off`,
      how: touch
        ? 'Target to zero, fans running. Confirm by a reading, never by a trial touch.'
        : 'Target to zero, fans running: heat left in the block would soften the strand in the cold zone.',
      need: { heat: 'any', power: 'any', hotC: 0 },
      minutes: TICK_MIN,
      waitMinutes: secondsToCool(this.bench.temperatureC, toC, ambientC, coolTauS) / 60,
      sets: { targetC: 0, readingC: toC },
      cautions: ['hot'],
    });
    this.bench = { ...this.bench, temperatureC: toC };
  }

  open(part: AccessPart): void {
    this.bring('Open', part.heat, part.power, 0);
    this.add({
      key: `open:${part.id}`,
      phase: 'Open',
      kind: 'open',
      title: `Off: ${part.name}`,
      how: part.off,
      part: part.id,
      need: { heat: part.heat, power: part.power, hotC: 0 },
      minutes: part.minutesOff,
      tools: part.tool ? [part.tool] : [],
      fasteners: part.fasteners ?? [],
      cautions: part.cautions ?? [],
      opens: part.id,
    });
    this.bench = { ...this.bench, off: new Set([...this.bench.off, part.id]) };
  }

  close(part: AccessPart): void {
    this.bring('Close', part.heat, part.power, 0);
    this.add({
      key: `close:${part.id}`,
      phase: 'Close',
      kind: 'close',
      title: `Back on: ${part.name}`,
      how: part.on,
      part: part.id,
      need: { heat: part.heat, power: part.power, hotC: 0 },
      minutes: part.minutesOn,
      tools: part.tool ? [part.tool] : [],
      fasteners: part.fasteners ?? [],
      cautions: part.cautions ?? [],
      closes: part.id,
    });
    this.bench = { ...this.bench, off: new Set([...this.bench.off].filter((id) => id !== part.id)) };
  }
}

/** Text with the values that this machine and filament give. */
function filled(text: string, machine: Machine, material: Material, station: Station, hotC: number): string {
  const pull = `${Math.min(material.pullC, machine.heat.limitC)} °C (nylon about 150 °C)`;
  return text
    .replaceAll('{temp}', `${Math.round(hotC)} °C`)
    .replaceAll('{pull}', pull)
    .replaceAll('{solvent}', material.solvent ?? 'none that spares the metal: replace instead')
    .replaceAll('{station}', station.name);
}

function unload(writer: Writer, route: Route, stop: Stop, material: Material, machine: Machine): void {
  const gears = route.stops.findIndex((candidate) => candidate.station.kind === 'extruder');
  const lane = route.stops[0]?.station.name ?? 'the spool';
  if (stop.index < gears) {
    writer.add({
      key: 'unload',
      phase: 'Make ready',
      kind: 'unload',
      title: 'Draw the strand back cold',
      how: `Lever open, draw from ${lane}. Look at the end: what is missing is still inside. Note its length.`,
      need: { heat: 'any', power: 'any', hotC: 0 },
      minutes: UNLOAD_MIN,
    });
    return;
  }
  const hotC = Math.min(material.printC, machine.heat.limitC);
  writer.bring('Make ready', 'hot', 'on', hotC);
  writer.add({
    key: 'unload',
    phase: 'Make ready',
    kind: 'unload',
    title: 'Unload the filament',
    how: 'At print heat push a little in so that the melt is one piece, then pull out in one go. If it does not come, cut it at the head and leave the rest.',
    need: { heat: 'hot', power: 'on', hotC },
    minutes: UNLOAD_MIN,
    tools: ['side cutters'],
    cautions: ['hot'],
  });
}

/**
 * The ordered steps for the chosen cause: make ready, open, the rungs of the ladder as far as they are needed, close.
 * Written from the machine's access data, the catalogue's remedies and the bench as it was when the cause was chosen, so
 * the list stays the same while it is worked through; a rung that did not clear adds the next.
 *
 * @throws RangeError when no cause is chosen or it is not of this machine.
 */
export function planFor(machine: Machine, catalogue: Catalogue, state: OrderState): Plan {
  const { cause } = state;
  if (!cause) throw new RangeError('No cause is chosen.');
  const kase = caseOf(machine, catalogue, state);
  const whole = routeOf(machine, kase.lane);
  const stop = whole.stops.find((candidate) => candidate.station.id === cause.station);
  const mode = modeById(catalogue, cause.mode);
  if (!stop || !mode) throw new RangeError('The chosen cause does not belong to this machine and path.');
  const material = materialOf(catalogue, kase.material);
  const rungs = rungsFor(catalogue, { mode, stop }, material, kase.failed);
  const shown = rungs.slice(0, state.tries.length + 1);
  const solved = state.tries.some((item) => item.outcome === 'cleared');
  const used = solved ? shown.slice(0, state.tries.length) : shown;

  const writer = new Writer(machine, {
    temperatureC: cause.startC,
    power: cause.startPower,
    off: new Set(cause.startOff),
  });
  const byHand = used.some((remedy) => remedy.cautions?.includes('support-head'));
  if (used.some((remedy) => !remedy.leavesFilament)) unload(writer, whole, stop, material, machine);
  if (byHand)
    writer.add({
      key: 'raise',
      phase: 'Make ready',
      kind: 'raise',
      title: 'Raise the head and support it',
      how: 'Well clear of the bed, something firm under it. Lift axis held, only the extruder released. Pad a glass bed.',
      need: { heat: 'any', power: 'any', hotC: 0 },
      minutes: RAISE_MIN,
      tools: ['padding for the bed'],
      cautions: ['support-head'],
    });

  for (const remedy of used) {
    const need = needOf(machine, whole, { stop }, remedy, material);
    for (const part of partsToRemove(machine, need.parts, writer.bench.off)) writer.open(part);
    const mouth = remedy.needs === 'mouth' ? mouthFor(whole, stop.index)?.station.name : undefined;
    writer.bring('Clear or replace', need.heat, need.power, need.hotC);
    writer.add({
      key: `rung:${remedy.id}`,
      phase: 'Clear or replace',
      kind: 'rung',
      title: `${remedy.name}: ${stop.station.name}`,
      how: `${mouth && mouth !== stop.station.name ? `In at ${mouth}. ` : ''}${filled(remedy.how, machine, material, stop.station, need.hotC)}`,
      station: stop.station.id,
      remedy: remedy.id,
      need: { heat: need.heat, power: need.power, hotC: need.hotC },
      minutes: remedy.minutes,
      waitMinutes: remedy.waitMinutes ?? 0,
      tools: remedy.tools ?? [],
      cautions: remedy.cautions ?? [],
      ...(remedy.stop ? { stop: remedy.stop } : {}),
      ...(remedy.replaces ? { replaces: remedy.replaces } : {}),
    });
  }
  for (const part of partsToRefit(machine, writer.bench.off)) writer.close(part);

  const tools = [...new Set(writer.steps.flatMap((step) => step.tools))];
  return {
    station: stop.station,
    mode: mode.id,
    modeName: mode.name,
    steps: writer.steps,
    tools,
    handsOnMinutes: writer.steps.reduce((sum, step) => sum + step.minutes, 0),
    waitingMinutes: writer.steps.reduce((sum, step) => sum + step.waitMinutes, 0),
    safety: SAFETY_NOTE,
    exhausted: !solved && state.tries.length >= rungs.length,
  };
}

/** Why a step must wait in the recorded state; undefined when it may begin. */
export function heldBecause(step: PlanStep, bench: Bench): string | undefined {
  if (step.kind === 'power' && step.sets?.power === 'off' && bench.temperatureC > SWITCH_OFF_BELOW_C)
    return `must cool below ${SWITCH_OFF_BELOW_C} °C before it is switched off: recorded ${Math.round(bench.temperatureC)} °C`;
  return unmet(step.need, bench);
}
