import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { marked } from './hazards';
import type { Accident, Deed, PlayedStep, Scene } from './types';
import { wordsAgainst } from './words';
import { accident, BURNS_C, MELT_C, OFF_BELOW_C, SLACK_C, Stop, worldOf, type Sim, type World } from './world';

/** What must hold at every moment. */
function always(world: World, sim: Sim): void {
  const { machine } = world;
  if (sim.power === 'on' && sim.loose.size > 0)
    accident('power-loose', `power is on and ${[...sim.loose].join(', ')} hang loose`);
  const heating = sim.power === 'on' && sim.target > 0;
  if (heating) {
    const kinds = machine.connectors.filter(
      ({ id, kind }) => sim.loose.has(id) && (kind === 'heater' || kind === 'thermistor'),
    );
    if (kinds.length > 0) accident('heat-unplugged', 'it heats with heater or thermistor unplugged');
    const away = [...sim.off.keys()].find((id) => world.part(id)?.heats && !sim.service.has(id));
    if (away !== undefined) accident('heat-unplugged', `it heats with ${away} off its mount`);
    if (sim.heatFault.size > 0) accident('heat-unknown', 'it heats with heater or thermistor at fault');
    if (sim.target > world.shortC + SLACK_C)
      accident('over-limit', `target ${sim.target} °C, and the path takes ${world.shortC} °C`);
  }
  if (sim.wet.size > 0 && (heating || sim.power === 'on'))
    accident('heat-wet', `${[...sim.wet].join(', ')} is wet and the power is on`);
}

/** Time passes: the machine heats or cools, and minutes above the long limit add up. */
function pass(world: World, sim: Sim, minutes: number): void {
  const { ambientC, coolTauS, heatUpCPerS } = world.machine.heat;
  const steps = Math.max(1, Math.ceil(minutes));
  for (let i = 0; i < steps; i++) {
    const seconds = (60 * minutes) / steps;
    const aim = sim.power === 'on' ? sim.target : 0;
    if (aim > sim.c) sim.c = Math.min(aim, sim.c + heatUpCPerS * seconds);
    else {
      const floor = Math.min(sim.c, Math.max(aim, ambientC));
      sim.c = Math.max(floor, ambientC + (sim.c - ambientC) * Math.exp(-seconds / coolTauS));
    }
    if (sim.c > world.longC + SLACK_C) {
      sim.shortMinutes += minutes / steps;
      if (sim.shortMinutes > world.shortFor)
        accident('over-limit', `above ${world.longC} °C for more than ${world.shortFor} min`);
    } else sim.shortMinutes = 0;
  }
}

/** Whether the strand that is pushed on at a station can leave at an end that stands open. */
function openBeyond(world: World, sim: Sim, station: string): boolean {
  const stops = routeOf(world.machine, world.lane).stops;
  const at = stops.findIndex((stop) => stop.station.id === station);
  const free = (list: readonly string[] | undefined): boolean =>
    list !== undefined && list.length > 0 && list.every((id) => sim.off.has(id));
  if ([...sim.off.keys()].some((id) => world.part(id)?.heats)) return true;
  if (free(stops[at]?.station.access?.open)) return true;
  return stops.slice(at + 1).some(({ station: next }) => free(next.access?.mouth) || next.access?.mouth?.length === 0);
}

function sizes(world: World, deed: Deed & { do: 'use' }): void {
  const bore = (kind: string, usual: number): number =>
    world.stretch.find((s) => s.kind === kind)?.params?.boreMm ?? usual;
  const stops = routeOf(world.machine, world.lane).stops.map((stop) => stop.station);
  if (deed.tool === 'needle' && deed.mm > bore('nozzle', 0.4) - 0.05 + 1e-9)
    accident('wrong-size', `a ${deed.mm} mm needle does not fit a bore of ${bore('nozzle', 0.4)} mm`);
  if (deed.tool === 'rod' && deed.mm > 0.9 * bore('heat-break', 2))
    accident('wrong-size', `a ${deed.mm} mm rod does not fit a bore of ${bore('heat-break', 2)} mm`);
  const tube = stops.find((s) => s.kind === 'tube')?.params?.outerMm ?? 4;
  if (deed.tool === 'bit' && (deed.mm >= tube || deed.mm < tube / 2))
    accident('wrong-size', `a ${deed.mm} mm bit for a tube of ${tube} mm`);
  const flats = stops.find((s) => s.id === deed.station)?.params?.spannerMm;
  if (deed.tool === 'spanner' && flats !== undefined && flats !== deed.mm)
    accident('wrong-size', `a ${deed.mm} mm spanner for ${flats} mm flats`);
}

/** One deed on the machine. */
function deedDone(world: World, sim: Sim, step: PlayedStep, deed: Deed): void {
  const changed = (): void => sim.proved.clear();
  switch (deed.do) {
    case 'target':
      if (deed.c > 0 && sim.power === 'off') accident('state-unmet', 'a target is set with the power off');
      sim.target = deed.c;
      break;
    case 'reads':
      sim.c = deed.atMost ? Math.min(sim.c, deed.c) : deed.c;
      break;
    case 'power':
      if (deed.to === 'off' && sim.c > OFF_BELOW_C + SLACK_C)
        accident('off-hot', `switched off at ${Math.round(sim.c)} °C`);
      sim.power = deed.to;
      if (deed.to === 'off') sim.target = 0;
      break;
    case 'unplug':
    case 'plug':
      if (sim.power === 'on') accident('power-loose', `${deed.connectors.join(', ')} moved with the power on`);
      for (const id of deed.connectors)
        if (deed.do === 'unplug') sim.loose.add(id);
        else sim.loose.delete(id);
      changed();
      break;
    case 'off':
      takeOff(world, sim, step, deed);
      changed();
      break;
    case 'on':
      putOn(world, sim, step, deed);
      changed();
      break;
    case 'service':
      if (!world.part(deed.part)?.service) accident('heat-unplugged', `${deed.part} has no service position`);
      sim.service.add(deed.part);
      break;
    case 'raise':
    case 'lower':
      sim.held = deed.do === 'raise';
      break;
    case 'strand':
      for (const lane of deed.lanes) sim.strand.set(lane, deed.to);
      break;
    case 'push':
      if (!deed.inHand && !sim.held) accident('push-unsupported', 'pushed with the head not raised and supported');
      if (
        deed.exit === 'hot' &&
        (sim.c < MELT_C || [...sim.off.keys()].some((id) => world.part(id)?.heats && !sim.service.has(id)))
      )
        accident('push-closed', `pushed on into a hot end at ${Math.round(sim.c)} °C`);
      if (deed.exit === 'open' && !openBeyond(world, sim, deed.station))
        accident('push-closed', 'nothing stands open at the far end');
      changed();
      break;
    case 'wet':
      for (const id of deed.parts) {
        if (!sim.off.has(id)) accident('heat-wet', `solvent on ${id} while it is on the machine`);
        if (sim.c > BURNS_C + SLACK_C) accident('heat-wet', `solvent on ${id} at ${Math.round(sim.c)} °C`);
        sim.wet.add(id);
      }
      break;
    case 'dry':
      for (const id of deed.parts) sim.wet.delete(id);
      break;
    case 'touch':
      if (
        deed.with === 'bare' &&
        sim.c > BURNS_C + SLACK_C &&
        world.stretch.some((s) => s.id === deed.station && s.kind !== 'heat-break')
      )
        accident('hot-hand', `bare hands at ${deed.station}, ${Math.round(sim.c)} °C`);
      break;
    case 'use':
      sizes(world, deed);
      break;
    case 'prove': {
      const away = [...sim.off.keys()].filter((id) => !sim.left.has(id));
      if (away.length > 0) accident('proof-open', `proved with ${away.join(', ')} off`);
      if (sim.loose.size > 0) accident('proof-open', 'proved with plugs loose');
      if (sim.wet.size > 0) accident('proof-open', 'proved with a part wet');
      if ([...sim.mat].some(([id, n]) => n > 0 && !sim.left.has(id)))
        accident('proof-open', 'proved with fasteners on the mat');
      sim.proved.add(deed.proof);
      break;
    }
    case 'close': {
      const missing = deed.asked.filter((id) => !sim.proved.has(id));
      if (deed.outcome === 'cured' && (missing.length > 0 || deed.asked.length === 0))
        accident('cured-unproved', `closed as cured without ${missing.join(', ') || 'any proof'}`);
      break;
    }
  }
}

const TOOL_IN_HAND = /tweezers|pliers|spanner|hex|ball end/i;

/** Fasteners that come out with a part, and so must go back. */
const counted = (
  list: readonly { readonly count: number; readonly loosenOnly?: boolean; readonly stays?: boolean }[] = [],
): number => list.reduce((sum, one) => sum + (one.loosenOnly || one.stays ? 0 : one.count), 0);

function takeOff(world: World, sim: Sim, step: PlayedStep, { part: id, way }: Deed & { do: 'off' | 'on' }): void {
  const removal = world.removal(id, way);
  const part = world.part(id);
  if (!removal || !part) return accident('open-held', `there is no part ${id}`);
  if (sim.off.has(id)) accident('open-held', `${id} is off already`);
  const holding = removal.after?.find((other) => !sim.off.has(other));
  if (holding !== undefined) accident('open-held', `${id} taken off while ${holding} is on`);
  if (part.hot && sim.c > BURNS_C + SLACK_C && !step.tools.some((tool) => TOOL_IN_HAND.test(tool)))
    accident('hot-hand', `${id} taken by hand at ${Math.round(sim.c)} °C`);
  const plugged = removal.unplug?.find((plug) => !sim.loose.has(plug));
  if (plugged !== undefined) accident('open-held', `${id} taken off with ${plugged} plugged in`);
  if (part.severs)
    for (const lane of world.lanesOf(id)) {
      const strand = sim.strand.get(lane);
      if (strand !== 'out' && strand !== 'remnant')
        accident('tube-full', `${id} off, and the strand of ${lane} is ${strand ?? 'unknown'}`);
    }
  sim.off.set(id, way ?? '');
  sim.mat.set(id, counted(removal.fasteners));
}

function putOn(world: World, sim: Sim, step: PlayedStep, { part: id }: Deed & { do: 'off' | 'on' }): void {
  if (!sim.off.has(id)) accident('open-held', `${id} put back and it was on`);
  const missing = [...sim.off].find(
    ([other, way]) => other !== id && !sim.left.has(other) && world.removal(other, way)?.after?.includes(id),
  );
  if (missing) accident('open-held', `${id} closed over ${missing[0]}, which is missing`);
  if (world.part(id)?.hot && sim.c > BURNS_C + SLACK_C && !step.tools.some((tool) => TOOL_IN_HAND.test(tool)))
    accident('hot-hand', `${id} put back by hand at ${Math.round(sim.c)} °C`);
  sim.mat.set(id, (sim.mat.get(id) ?? 0) - counted(step.fasteners));
  sim.off.delete(id);
  sim.service.delete(id);
}

/** What a step turns a nozzle out or in with, by its words. */
const TURNS_NOZZLE = /new nozzle|known-good nozzle|to hold the block/i;
const NEW_PART = /new part/i;

/** A nozzle that is screwed against its heat break, turned in a block in which the melt has set: the thin break tears first (practice). */
function turned(world: World, sim: Sim, step: PlayedStep): void {
  const nozzle = world.stretch.find(({ kind, params }) => kind === 'nozzle' && params?.nozzleKind === 'two-piece');
  const onMachine = ![...sim.off.keys()].some((id) => world.part(id)?.heats);
  if (!nozzle || !onMachine || sim.c >= MELT_C) return;
  const there = step.acts.some((deed) => deed.do === 'touch' && deed.station === nozzle.id);
  if (step.tools.some((tool) => TURNS_NOZZLE.test(tool) || (there && NEW_PART.test(tool))))
    accident('nozzle-cold', `the nozzle is turned in its block at ${Math.round(sim.c)} °C`);
}

/** The state that a step says it needs, against the state that there is. */
function needMet({ need, acts }: PlayedStep, sim: Sim): void {
  const reads = acts.some((deed) => deed.do === 'reads');
  if (need.heat === 'hot' && !reads && sim.c < need.hotC - 12)
    accident('state-unmet', `needs ${need.hotC} °C, and it is at ${Math.round(sim.c)} °C`);
  if (need.heat === 'cold' && sim.c > BURNS_C + SLACK_C)
    accident('state-unmet', `needs it cold, and it is at ${Math.round(sim.c)} °C`);
  if (need.power === 'off' && sim.power === 'on') accident('state-unmet', 'needs the power off');
  if (need.power === 'on' && sim.power === 'off') accident('state-unmet', 'needs the power on');
}

/**
 * Plays steps from a scene on one lane of a machine.
 *
 * @returns the first accident, or undefined when none happens.
 */
export function playPlan(
  machine: Machine,
  lane: string,
  scene: Scene,
  steps: readonly PlayedStep[],
): Accident | undefined {
  const world = worldOf(machine, lane);
  const sim: Sim = {
    c: scene.temperatureC,
    target: scene.targetC,
    power: scene.power,
    off: new Map(Object.entries(scene.off)),
    loose: new Set(scene.unplugged ?? []),
    strand: new Map(Object.entries(scene.strand)),
    held: scene.supported,
    wet: new Set(scene.wet),
    service: new Set(scene.service),
    mat: new Map(),
    left: new Set([...(scene.leftOff ?? []), ...(scene.absent ?? [])]),
    shortMinutes: 0,
    proved: new Set(),
    heatFault: new Set(scene.heatFault ?? []),
  };
  for (const [id, way] of sim.off) {
    if (scene.absent?.includes(id)) continue;
    for (const plug of world.removal(id, way)?.unplug ?? []) sim.loose.add(plug);
    sim.mat.set(id, counted(world.removal(id, way)?.fasteners));
  }
  for (const [i, step] of steps.entries()) {
    try {
      needMet(step, sim);
      marked(world, sim, step);
      turned(world, sim, step);
      const said = wordsAgainst(step, sim.target);
      if (said !== undefined) accident('words-against-state', said);
      for (const [k, deed] of step.acts.entries()) {
        // The work itself takes its time before the target goes back at its end.
        if (k === step.acts.length - 1 && deed.do === 'target' && step.acts.length > 1) pass(world, sim, step.minutes);
        deedDone(world, sim, step, deed);
        if (i > 0 || deed.do !== 'power') always(world, sim);
      }
      pass(world, sim, step.minutes + step.waitMinutes);
      sim.heatFault.delete(step.id);
      always(world, sim);
    } catch (error) {
      if (error instanceof Stop) return { id: error.accident, step: step.id, text: error.message };
      throw error;
    }
  }
  return undefined;
}
