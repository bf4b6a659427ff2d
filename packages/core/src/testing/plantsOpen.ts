import {
  afterOpening,
  before,
  bolted,
  by,
  changed,
  geared,
  isHotEnd,
  on,
  opens,
  shroud,
  soundPlan,
  step,
  without,
  type Plant,
} from './plantTools';
import type { Deed } from '../referee';

/** Accidents of what is opened, unplugged and soaked, each in sound plans of different machines. */
export function plantsOpen(): readonly Plant[] {
  const soak = [bolted, shroud, geared].map((m) => soundPlan(m, by('solvent-soak', 'cold')));
  const renew = [bolted, shroud, geared].map((m) => soundPlan(m, by('renew-hot-end', 'cold')));
  const rows: Plant[] = [];
  for (const plan of renew) {
    rows.push([
      'power-loose',
      'power on with the plugs pulled',
      plan,
      ({ steps }) => afterOpening(steps, opens(isHotEnd), [on]),
    ]);
    rows.push([
      'power-loose',
      'pulled with the power on',
      plan,
      ({ steps }) =>
        before(
          changed(steps, opens(isHotEnd), (s) => ({ ...s, need: { ...s.need, power: 'any' } })),
          opens(isHotEnd),
          [on],
        ),
    ]);
    rows.push([
      'open-held',
      'taken off before its cover',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('open:') && !opens(isHotEnd)(s)),
    ]);
    rows.push([
      'open-held',
      'closed over a part that is missing',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('close:hot-end')),
    ]);
    rows.push([
      'proof-open',
      'proved with the cover off',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('close:') && !s.id.startsWith('close:hot-end')),
    ]);
    rows.push([
      'proof-open',
      'a screw on the mat',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.id.startsWith('close:hot-end'),
          (s) => ({ ...s, fasteners: [] }),
        ),
    ]);
    rows.push([
      'cured-unproved',
      'closed without the feed proof',
      plan,
      ({ steps }) => without(steps, (s) => s.id === 'prove:feed'),
    ]);
    rows.push([
      'unmarked-hazard',
      'plugs without their caution',
      plan,
      ({ steps }) =>
        changed(steps, opens(isHotEnd), (s) => ({ ...s, cautions: s.cautions.filter((id) => id !== 'unplug') })),
    ]);
    rows.push([
      'tube-full',
      'opened with the strand in it',
      plan,
      ({ steps }) => without(steps, (s) => s.id.startsWith('unload')),
    ]);
    rows.push([
      'words-against-state',
      'a cold step that says hot',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.need.heat === 'cold',
          (s) => ({ ...s, how: `${s.how} Turn it at heat.` }),
        ),
    ]);
    rows.push([
      'state-unmet',
      'the cooling left out',
      plan,
      ({ steps }) =>
        without(
          before(steps, opens(isHotEnd), [
            step([
              { do: 'power', to: 'on' },
              { do: 'target', c: 200 },
              { do: 'reads', c: 200 },
              { do: 'target', c: 0 },
            ]),
          ]),
          (s) => /^(cool|wait|off)/.test(s.id),
        ),
    ]);
  }
  for (const plan of soak) {
    rows.push([
      'heat-wet',
      'the drying left out',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.id.endsWith(':dry'),
          (s) => ({ ...s, acts: [] }),
        ),
    ]);
    rows.push([
      'heat-wet',
      'solvent on the machine',
      plan,
      ({ steps }) => before(steps, opens(isHotEnd), [step([{ do: 'wet', parts: ['hot-end'] }])]),
    ]);
    rows.push([
      'unmarked-hazard',
      'solvent without its caution',
      plan,
      ({ steps }) =>
        changed(
          steps,
          (s) => s.id.endsWith(':soak'),
          (s) => ({ ...s, cautions: [] }),
        ),
    ]);
    rows.push([
      'heat-unplugged',
      'heat with the plugs pulled',
      plan,
      ({ steps }) =>
        afterOpening(steps, opens(isHotEnd), [
          step([
            { do: 'plug', connectors: [] },
            { do: 'target', c: 0 },
          ]),
        ]).flatMap((s) =>
          s.id === 'planted'
            ? [
                {
                  ...s,
                  acts: [
                    {
                      do: 'plug',
                      connectors: plan.of.machine.connectors
                        .filter(({ kind }) => kind !== 'heater')
                        .map(({ id }) => id),
                    },
                  ] as Deed[],
                },
                {
                  ...s,
                  acts: [
                    { do: 'plug', connectors: plan.of.machine.connectors.map(({ id }) => id) },
                    { do: 'power', to: 'on' },
                    { do: 'target', c: 200 },
                  ] as Deed[],
                },
              ]
            : [s],
        ),
    ]);
  }
  return rows;
}
