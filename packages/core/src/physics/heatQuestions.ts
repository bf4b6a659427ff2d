import type { Machine } from '../path/machine';
import { SWITCH_OFF_BELOW_C } from './heat';
import { runHeat, type HeatPhase, type HeatRun, type HeatTask, type HotEndKind } from './heatCreep';
import { peakSpread, softening, type Softening } from './softening';

/** What is asked of a hot end: does the strand soften where it should be cold? */
export interface HeatQuestion {
  readonly id: 'full' | 'half' | 'dead' | 'off' | 'waited';
  readonly name: string;
  readonly run: HeatRun;
  readonly answer: Softening;
  /** Spread of the warmest, °C, from constants that are not known for this machine. */
  readonly spreadC: number;
  /** It is switched off hotter than the rule allows: no reckoning makes that safe. */
  readonly againstRule: boolean;
}

const HOUR = 3600;

/** Seconds until the block has cooled to where it may be switched off, its fan running. */
function waiting(task: HeatTask): number {
  const { frames } = runHeat({ ...task, phases: [{ seconds: HOUR, heater: 'off', fan: 'full' }] });
  return frames.find(({ blockC }) => blockC <= SWITCH_OFF_BELOW_C)?.atS ?? HOUR;
}

/** Whether fan and heater go off while the block is still hotter than where it may be switched off. */
const againstRule = ({ targetC, phases: [first] }: HeatTask): boolean =>
  first?.heater === 'off' && first.fan === 'dead' && targetC > SWITCH_OFF_BELOW_C;

/** The questions of the trade, each worked out over an hour of machine time. */
export function heatQuestions(base: Omit<HeatTask, 'phases'>, glassC: number): readonly HeatQuestion[] {
  const hold = (fan: HeatPhase['fan']): HeatPhase => ({ seconds: HOUR, heater: 'hold', fan });
  const off: HeatPhase = { seconds: HOUR, heater: 'off', fan: 'dead' };
  const wait = waiting({ ...base, phases: [] });
  const asked: readonly (readonly [HeatQuestion['id'], string, readonly HeatPhase[]])[] = [
    ['off', `Switched off at ${Math.round(base.targetC)} °C, the fan with it`, [off]],
    [
      'waited',
      `Waited until ${SWITCH_OFF_BELOW_C} °C with the fan on, then off`,
      [{ seconds: wait, heater: 'off', fan: 'full' }, off],
    ],
    ['dead', 'Printing on with a dead fan', [hold('dead')]],
    ['half', 'Printing with the fan at half speed', [hold('half')]],
    ['full', 'Printing with the fan as it should be', [hold('full')]],
  ];
  return asked.map(([id, name, phases]) => {
    const task = { ...base, phases };
    const run = runHeat(task);
    return {
      id,
      name,
      run,
      answer: softening(run, glassC),
      spreadC: peakSpread(task, glassC),
      againstRule: againstRule(task),
    };
  });
}

/** Within so many spreads of softening the answer is not sure (nine of ten lie within 1.3 on one side). */
const NEAR = 1.3;

/** The answer to one of them, in a sentence. */
export function heatSentence(
  { answer, spreadC, againstRule: against }: Pick<HeatQuestion, 'answer' | 'spreadC' | 'againstRule'>,
  glassC: number,
): string {
  const rule = against
    ? ` All the same, let it cool below ${SWITCH_OFF_BELOW_C} °C with its fan before switching off.`
    : '';
  return `${whetherSoft(answer, spreadC, glassC)}${rule}`;
}

function whetherSoft(answer: Softening, spreadC: number, glassC: number): string {
  const { peakC, softAtS, softToMm } = answer;
  const warmest = `${Math.round(peakC)} ± ${Math.max(1, Math.round(spreadC))} °C`;
  const near = Math.abs(peakC - glassC) <= NEAR * spreadC;
  if (softAtS === undefined)
    return near
      ? `The strand in the cold zone gets to ${warmest}: below ${glassC} °C where it softens, but not surely.`
      : `The strand in the cold zone stays at ${warmest} at most: it does not soften.`;
  return `The strand in the cold zone softens after ${softAtS < 90 ? `${Math.round(softAtS)} s` : `${Math.round(softAtS / 60)} min`}, up to ${Math.round(softToMm)} mm above the break; it gets to ${warmest}${near ? ', so it is close' : ''}.`;
}

/** What kind of hot end a machine has, from its own stations; unknown: all-metal, with the shortest break. */
export function hotEndKindOf(machine: Machine): HotEndKind {
  const stations = machine.runs.flatMap((run) => run.stations);
  if (stations.some(({ kind, params }) => kind === 'nozzle' && params?.nozzleKind === 'one-piece')) return 'one-piece';
  const lined = stations.some(
    ({ kind, params }) => kind === 'heat-break' && (params?.lining === 'to-nozzle' || params?.lining === 'above'),
  );
  return lined ? 'lined' : 'all-metal';
}

export const HOT_END_NAMES: Readonly<Record<HotEndKind, string>> = {
  lined: 'Lined with PTFE',
  'all-metal': 'All-metal',
  'one-piece': 'One piece with its nozzle',
};
