/** A caution as it stands at its step: one line with its reason, and the standard sign by shape and word. */
export interface Caution {
  readonly id: string;
  readonly sign: string;
  readonly shape: 'triangle' | 'diamond' | 'circle';
  readonly line: string;
  readonly more: string;
}

const ask = 'The maker’s manual, the data sheet and local rules come first; ask a licensed electrician about mains.';

export const CAUTIONS: Readonly<Record<string, Caution>> = Object.fromEntries(
  (
    [
      [
        'hot',
        'W017 hot surface',
        'triangle',
        'Hot end at heat: bare hands only when it reads below 48 °C.',
        'Burn threshold of smooth bare metal: 51 °C for 1 min, 48 °C for 10 min, 43 °C for 8 h (ISO 13732-1).',
      ],
      [
        'metal-tray',
        'W017 hot surface',
        'triangle',
        'Lay the hot nozzle on metal, away from mat and tube: it melts into both.',
        'Hold hot parts in pliers; a metal tray stands ready before the nozzle turns.',
      ],
      [
        'burn-face',
        'W017 hot surface',
        'triangle',
        'Face and hand beside the nozzle, not under it: melt drips.',
        'Wear glasses; needle held in pliers.',
      ],
      [
        'ptfe',
        'GHS07 exclamation mark',
        'diamond',
        'PTFE in the path: minutes at this heat at most, ventilate, no birds in the room.',
        '260 °C is the material’s limit, not a working point; fumes are harmful.',
      ],
      [
        'support-head',
        'W024 crushing of hands',
        'triangle',
        'Raise the head and support it before pushing by hand: a held axis driven down puts the nozzle into the bed.',
        'The lift axis stays held, only the extruder is released. Pad a glass bed.',
      ],
      [
        'two-tries',
        'W017 hot surface',
        'triangle',
        'Two tries are enough: ramming packs the plug harder.',
        'Back off, measure the depth, go to the next rung.',
      ],
      [
        'sharp',
        'W022 sharp',
        'triangle',
        'Cut away from fingers, on a surface.',
        'Guillotine cutter for tubes; blades capped when laid down.',
      ],
      [
        'spring',
        'W024 crushing of hands',
        'triangle',
        'A spring under tension: glasses on, a finger over it.',
        'Note which way round it sits before it is lifted.',
      ],
      [
        'unplug',
        'W012 electricity',
        'triangle',
        'Off and unplugged before any plug is pulled; by its body, not the wires.',
        ask,
      ],
      [
        'mains',
        'W012 electricity',
        'triangle',
        'Leave the power supply closed: mains work belongs to a licensed person.',
        ask,
      ],
      [
        'solvent',
        'W021 flammable',
        'triangle',
        'Solvent: no heat, no spark, away from the machine, lidded glass, gloves.',
        'Acetone: flash point −18 °C, 250 ppm. Ethyl acetate: flash point −4 °C, 400 ppm (NIOSH Pocket Guide). Read its safety data sheet.',
      ],
      [
        'dry-first',
        'GHS02 flame',
        'diamond',
        'Part fully dry before it is heated: vapour burns.',
        'Air it overnight; no smell left.',
      ],
      [
        'drill-hand',
        'W022 sharp',
        'triangle',
        'The bit is turned by hand only: a machine takes too much.',
        'Hold the part in pliers, not in fingers.',
      ],
      [
        'dust',
        'W022 sharp',
        'triangle',
        'Glasses on; blow chips and dust away from the machine.',
        'Hold fan blades still: spun by air they break or feed the board.',
      ],
    ] as const
  ).map(([id, sign, shape, line, more]) => [id, { id, sign, shape, line, more }]),
);

export const SAFETY_NOTE =
  'This plan does not replace the maker’s manual, the solvent’s safety data sheet, workplace rules or a licensed electrician. When in doubt, stop and ask them.';
