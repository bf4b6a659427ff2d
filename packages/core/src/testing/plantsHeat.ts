import {
  afterOpening,
  bolted,
  bowden,
  belt,
  by,
  changed,
  has,
  hub,
  isHotEnd,
  isPush,
  on,
  opens,
  power,
  rear,
  soundPlan,
  step,
  without,
  type Plant,
} from './plantTools';

import { machineOfFamily } from '../path/families';
import { whelk } from './machines';

/** Accidents of heat, pushes and tubes, each in sound plans of different machines. */
export function plantsHeat(): readonly Plant[] {
  const push = [
    soundPlan(bolted, by('hotter-push', 'cold')),
    soundPlan(bowden, by('hotter-push', 'cold')),
    soundPlan(hub, by('hotter-push', 'cold')),
  ];
  const seats = [
    soundPlan(bowden, by('renew-tube', 'cold')),
    soundPlan(bowden, by('renew-coupler', 'cold')),
    soundPlan(rear, by('renew-tube', 'cold')),
  ];
  const nozzles = [
    soundPlan(bowden, by('renew-nozzle', 'cold')),
    soundPlan(bowden, by('retighten-nozzle', 'cold')),
    soundPlan(belt, by('renew-nozzle', 'cold')),
  ];
  const rows: Plant[] = [];
  for (const plan of nozzles)
    rows.push([
      'nozzle-cold',
      'the nozzle turned before it is heated',
      plan,
      ({ steps }) => [step([], { tools: ['second spanner to hold the block'] }), ...steps],
    ]);
  rows.push([
    'nozzle-cold',
    'the nozzle renewed cold as any part is',
    nozzles[0] as Plant[2],
    ({ steps }) => [step([{ do: 'touch', station: 'nozzle', with: 'tool' }], { tools: ['new part'] }), ...steps],
  ]);
  for (const plan of push) {
    rows.push([
      'push-unsupported',
      'the head not raised',
      plan,
      ({ steps }) => without(steps, (s) => s.id === 'raise'),
    ]);
    rows.push([
      'push-closed',
      'pushed into a hot end that is cold',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, need: { ...s.need, heat: 'any' } }),
        ).map((s) => (/^(heat|warm):/.test(s.id) ? { ...s, acts: [] } : s)),
    ]);
    rows.push([
      'off-hot',
      'switched off at heat',
      plan,
      ({ steps }) => afterOpening(steps, (s) => has(s, isPush), [power('off')]),
    ]);
    rows.push([
      'over-limit',
      'a target above what the path takes',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.id.startsWith('heat:'),
          (s) => ({ ...s, acts: [{ do: 'target', c: 330 }] }),
        ),
    ]);
    rows.push([
      'hot-hand',
      'bare hands at the nozzle',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, acts: [{ do: 'touch', station: 'nozzle', with: 'bare' }, ...s.acts] }),
        ),
    ]);
    rows.push([
      'wrong-size',
      'a needle as wide as the bore',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, acts: [{ do: 'use', tool: 'needle', mm: 0.4, station: 'nozzle' }, ...s.acts] }),
        ),
    ]);
    rows.push([
      'unmarked-hazard',
      'a push without its caution',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, cautions: s.cautions.filter((id) => id !== 'support-head') }),
        ),
    ]);
    rows.push([
      'words-against-state',
      'another temperature in the text',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, how: `${s.how} Nylon at 150 °C.` }),
        ),
    ]);
    rows.push([
      'cured-unproved',
      'closed without any proof',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('prove:')),
    ]);
  }
  for (const plan of seats) {
    rows.push([
      'tube-full',
      'the tube drawn with the strand in it',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('unload')),
    ]);
    rows.push([
      'unmarked-hazard',
      'a tube cutter without its caution',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.tools.some((tool) => /cutter/.test(tool)),
          (s) => ({ ...s, cautions: [] }),
        ),
    ]);
    rows.push([
      'wrong-size',
      'a rod wider than the bore',
      plan,
      ({ steps }) => [step([{ do: 'use', tool: 'rod', mm: 2, station: 'liner' }]), ...steps],
    ]);
    rows.push([
      'proof-open',
      'proved with the tube out',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('close:tube')),
    ]);
  }
  // The lined path: PTFE's own caution, and its minutes.
  for (const machine of [bowden, belt, whelk]) {
    const plan = soundPlan(machine, by('hotter-push', 'hot'));
    rows.push([
      'over-limit',
      'PTFE without its caution',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.id.startsWith('heat:'),
          (s) => ({ ...s, cautions: ['hot'] }),
        ),
    ]);
    rows.push([
      'over-limit',
      'too long above the long limit',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => has(s, isPush),
          (s) => ({ ...s, minutes: 30 }),
        ),
    ]);
  }
  // The hot end off its mount, its plugs still in: no heat where no service position is named.
  for (const machine of [machineOfFamily('direct-converted', 'converted', 'Converted'), hub, rear]) {
    const plan = soundPlan(
      machine,
      by(machine === hub || machine === rear ? 'renew-nozzle-quick' : 'renew-hot-end', 'cold'),
    );
    rows.push([
      'heat-unplugged',
      'heated off its mount',
      plan,
      ({ steps }) => afterOpening(steps, opens(isHotEnd), [on, step([{ do: 'target', c: 200 }])]),
    ]);
  }
  // Heater or thermistor at fault: nothing is heated before it is mended.
  for (const machine of [bowden, hub, rear]) {
    const plan = soundPlan(machine, by('renew-thermistor', 'cold'));
    rows.push([
      'heat-unknown',
      'heated with the thermistor at fault',
      plan,
      ({ steps }) => [on, step([{ do: 'target', c: 200 }]), ...steps],
    ]);
  }
  return rows;
}
