import type { Machine } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { NumberField } from '../ui/form/NumberField';
import { space } from '../ui/tokens';

interface Figure {
  /** Where it stands in the format. */
  readonly path: readonly string[];
  readonly label: string;
  readonly least: number;
  readonly most: number;
  readonly get: (machine: Machine) => number;
  readonly set: (machine: Machine, value: number) => Machine;
}
const heatFigure = (
  name: 'ambientC' | 'coolTauS' | 'heatUpCPerS' | 'limitC',
  label: string,
  least: number,
  most: number,
): Figure => ({
  path: ['heat', name],
  label,
  least,
  most,
  get: (machine) => machine.heat[name],
  set: (machine, value) => ({ ...machine, heat: { ...machine.heat, [name]: value } }),
});
/** What of the machine as a whole is reckoned with; bounds as in its published format. */
export const FIGURES: readonly Figure[] = [
  {
    path: ['strandMm'],
    label: 'Filament diameter, mm',
    least: 0.5,
    most: 5,
    get: ({ strandMm }) => strandMm,
    set: (machine, strandMm) => ({ ...machine, strandMm }),
  },
  heatFigure('limitC', 'Hottest that it may get, °C', 100, 600),
  heatFigure('ambientC', 'Usual room temperature, °C', -20, 60),
  heatFigure('heatUpCPerS', 'Heats by, °C a second', 0.05, 50),
  heatFigure('coolTauS', 'Cools with a time constant of, s', 10, 3600),
];

/** Strand and heat of the machine, with the bounds of its format. */
export function MachineFigures({
  machine,
  onChange,
}: {
  readonly machine: Machine;
  readonly onChange: (machine: Machine) => void;
}) {
  return (
    <View style={styles.row}>
      {FIGURES.map(({ label, least, most, get, set }) => (
        <NumberField
          key={label}
          label={label}
          value={get(machine)}
          fits={(n) => n >= least && n <= most}
          onChange={(n) => {
            if (n !== undefined) onChange(set(machine, n));
          }}
          style={styles.figure}
        />
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  figure: { flexGrow: 1, flexBasis: 150 },
});
