import type { Catalogue, FailureMode, Material } from '../catalogue/types';
import type { Machine } from '../path/machine';
import { creepOnset, shareOf, type CreepOnset } from '../physics/creepOnset';
import { hotEndKindOf } from '../physics/heatQuestions';

/** The catalogue’s figures are for its usual filament in a usual room, °C. */
const ROOM_C = 22;
/** What is worked out moves a weight, and a time, by this at most (chosen: constants of bodies are typical, not measured). */
const MOST = 3;
/** A probability below this is a matter of the constants (chosen). */
const LEAST = 0.03;
/** What softens within this is soft at once, s (chosen: two steps of the model). */
const SOON_S = 20;
/** A change smaller than this is none. */
const WORTH = 0.1;

const bounded = (x: number): number => Math.min(MOST, Math.max(1 / MOST, x));

interface Crept {
  readonly mode: FailureMode;
  readonly raise?: { readonly why: string; readonly by: number };
}

const known = new WeakMap<FailureMode, Map<string, Crept>>();

/**
 * A mode in which the strand softens in the cold zone, as it is for this hot end and filament: how much likelier than for the usual
 * filament, and after how long. Other modes, and filaments whose glass transition is not known, stay as they are.
 */
export function creptMode(mode: FailureMode, machine: Machine, catalogue: Catalogue, material: Material): Crept {
  const [usual] = catalogue.materials;
  if (!mode.creep || material.glassC === undefined || usual?.glassC === undefined) return { mode };
  const { ambientC, limitC } = machine.heat;
  const kind = hotEndKindOf(machine);
  const key = `${kind} ${ambientC} ${limitC} ${material.glassC} ${material.printC}`;
  const kept = known.get(mode) ?? new Map<string, Crept>();
  known.set(mode, kept);
  const before = kept.get(key);
  if (before) return before;
  const { creep } = mode;
  const of = (glassC: number, printC: number, roomC: number): CreepOnset =>
    creepOnset(kind, creep, shareOf(glassC, roomC, Math.min(printC, limitC)));
  const here = of(material.glassC, material.printC, ambientC);
  const there = of(usual.glassC, usual.printC, ROOM_C);
  const made = changed(mode, here, there);
  kept.set(key, made);
  return made;
}

function changed(mode: FailureMode, here: CreepOnset, there: CreepOnset): Crept {
  const by = bounded(Math.max(LEAST, here.softens) / Math.max(LEAST, there.softens));
  const later =
    here.afterS === undefined || there.afterS === undefined
      ? 1
      : bounded(Math.max(SOON_S, here.afterS) / Math.max(SOON_S, there.afterS));
  const reads = Object.fromEntries(
    Object.entries(mode.reads ?? {}).map(([name, reading]) => [
      name,
      reading.creeps ? { ...reading, mean: reading.mean * later, sd: reading.sd * later } : reading,
    ]),
  );
  return {
    mode: mode.reads ? { ...mode, reads } : mode,
    ...(Math.abs(by - 1) < WORTH
      ? {}
      : {
          raise: {
            why:
              by > 1
                ? 'here the strand softens more easily in the cold zone than the usual filament in a usual room'
                : 'here the strand softens less easily in the cold zone than the usual filament in a usual room',
            by,
          },
        }),
  };
}
