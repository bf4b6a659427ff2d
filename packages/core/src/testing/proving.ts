import { materialOf } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { benchAt } from '../order/bench';
import { leftOffOf } from '../order/leftOff';
import type { OrderState } from '../order/state';
import type { Machine } from '../path/machine';
import { routeOf } from '../path/route';
import { proofsFor } from '../order/proofs';
import { stepOf, type PlanStep } from '../plan/steps';
import type { PlayedStep, Scene } from '../referee';

export const sceneOf = (machine: Machine, state: OrderState): Scene => {
  const bench = benchAt(machine, state, state.lastMs);
  return {
    temperatureC: bench.temperatureC,
    targetC: bench.targetC ?? 0,
    power: bench.power,
    off: Object.fromEntries([...bench.off].map((id) => [id, state.ways[id] ?? ''])),
    unplugged: state.pulled,
    strand: state.strand,
    supported: state.supported,
    wet: state.wet,
    service: state.service,
    leftOff: Object.keys(leftOffOf(state)),
    absent: state.absent,
  };
};

export const played = ({
  id,
  title,
  how,
  stop,
  cautions,
  tools,
  minutes,
  waitMinutes,
  need,
  fasteners,
  acts,
}: PlanStep): PlayedStep => ({
  id,
  title,
  how,
  ...(stop === undefined ? {} : { stop }),
  cautions,
  tools,
  minutes,
  waitMinutes,
  need,
  fasteners,
  acts,
});

/** The steps that prove the repair after the plan: each proof brought to its state, then the closing. */
export function provingSteps(
  machine: Machine,
  catalogue: Catalogue,
  state: OrderState,
  scene: Scene,
  before: readonly PlayedStep[],
): readonly PlayedStep[] {
  const route = routeOf(machine, state.intake?.lane);
  const material = state.intake?.material;
  const writing = { machine, catalogue, route, ...(material === undefined ? {} : { material }) };
  const printC = Math.round(
    Math.min(
      materialOf(catalogue, material).printC,
      machine.heat.limitC,
      ...route.stops.flatMap(({ station: { params } }) => params?.limitC ?? []),
    ),
  );
  let { power } = scene;
  let hot = scene.targetC > 0 || scene.temperatureC > 48;
  for (const deed of before.flatMap(({ acts }) => acts)) {
    if (deed.do === 'power') power = deed.to;
    if (deed.do === 'target') hot = hot || deed.c > 0;
    if (deed.do === 'reads' && deed.c <= 48) hot = false;
  }
  const steps: PlayedStep[] = [];
  const add = (id: string): void => void steps.push(played(stepOf(id, writing)));
  let at = 0;
  const asked = proofsFor(machine, catalogue, state);
  for (const proof of asked) {
    if (proof.heat === 'cold' && hot) {
      add('wait:48');
      hot = false;
      at = 0;
    }
    if (proof.power === 'off' && power === 'on') {
      if (hot) add('wait:100');
      add('off');
      power = 'off';
      at = 0;
    }
    if ((proof.power === 'on' || proof.heat === 'hot') && power === 'off') {
      add('on');
      power = 'on';
    }
    if (proof.heat === 'hot' && at !== printC) {
      add(`heat:${printC}`);
      add(`warm:${printC}`);
      at = printC;
      hot = true;
    }
    steps.push({
      id: `prove:${proof.id}`,
      title: proof.name,
      how: proof.how,
      cautions: proof.cautions,
      tools: [],
      minutes: proof.minutes,
      waitMinutes: 0,
      need: { heat: proof.heat, power: proof.power, hotC: proof.heat === 'hot' ? printC : 0 },
      fasteners: [],
      acts: [{ do: 'prove', proof: proof.id }],
    });
  }
  steps.push({
    id: 'close',
    title: 'Close as cured',
    how: '',
    cautions: [],
    tools: [],
    minutes: 0,
    waitMinutes: 0,
    need: { heat: 'any', power: 'any', hotC: 0 },
    fasteners: [],
    acts: [{ do: 'close', outcome: 'cured', asked: asked.map(({ id }) => id) }],
  });
  return steps;
}
