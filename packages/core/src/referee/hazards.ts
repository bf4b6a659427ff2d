import type { PlayedStep } from './types';
import { accident, BURNS_C, type Sim, type World } from './world';

/** Which tools call for which caution, by their words; a step that uses one without it is an unmarked hazard. */
const TOOL_HAZARDS: readonly (readonly [RegExp, string])[] = [
  [/cutter|knife|blade|razor/i, 'sharp'],
  [/drill bit/i, 'drill-hand'],
  [/solvent|acetone|acetate/i, 'solvent'],
  [/heat gun|torch/i, 'heat-gun'],
  [/canned air|wire brush|round file/i, 'dust'],
];

/** Hazards of a step that its cautions do not mark. */
export function marked(world: World, sim: Sim, step: PlayedStep): void {
  const has = new Set(step.cautions);
  const want = (caution: string, why: string): void => {
    if (!has.has(caution)) accident('unmarked-hazard', `${why}, and "${caution}" is not said`);
  };
  for (const [sign, caution] of TOOL_HAZARDS)
    if (step.tools.some((tool) => sign.test(tool))) want(caution, `it uses ${step.tools.join(', ')}`);
  if (step.need.heat === 'hot') want('hot', 'it is done at heat');
  for (const deed of step.acts) {
    if (deed.do === 'target' && deed.c > 0) want('hot', 'it heats');
    if (deed.do === 'unplug' || deed.do === 'plug') want('unplug', 'it moves plugs');
    if (deed.do === 'push' && !deed.inHand) want('support-head', 'it pushes by hand');
    if (deed.do === 'wet') want('solvent', 'it uses solvent');
    if (deed.do === 'dry') want('dry-first', 'the part was wet');
    if (deed.do === 'off' || deed.do === 'on') {
      const removal = world.removal(deed.part, deed.way ?? sim.off.get(deed.part));
      if (removal?.loses?.some(({ what }) => what === 'spring')) want('spring', 'a spring may fly');
      if (removal?.parked) want('parked', 'it hangs on its cable');
      for (const caution of removal?.cautions ?? []) want(caution, 'the machine’s data say so');
    }
  }
  const heats = step.need.heat === 'hot' || step.acts.some((deed) => deed.do === 'target' && deed.c > BURNS_C);
  if (heats && world.lined && !has.has('ptfe'))
    accident('over-limit', 'PTFE lies on the heated stretch, and its caution is not said');
}
