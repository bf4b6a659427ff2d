import type { PlanStep, Solvent } from '@zealous/core';
import { StyleSheet, View } from 'react-native';
import { useShopHistoryQuery } from '../data/api';
import { Choice } from '../ui/Choice';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const ANSWERS = [
  { id: 'yes', label: 'The piece softened' },
  { id: 'no', label: 'It did not' },
] as const;

/** Each solvent that may take the plastic, tried on a piece of the same filament before the part goes in. */
export function SolventTry({
  step,
  tried,
  material,
  onTry,
}: {
  readonly step: PlanStep;
  readonly tried: Readonly<Record<string, boolean>>;
  readonly material: string | undefined;
  readonly onTry: (solvent: string, softened: boolean) => void;
}) {
  const history = useShopHistoryQuery().data?.solvents ?? [];
  const solvents = step.solvents ?? [];
  const here = ({ id }: Solvent): string => {
    const row = history.find((item) => item.solvent === id && item.material === (material ?? 'unknown'));
    return row ? `Here with this filament: ${row.softened} of ${row.tried} softened. ` : '';
  };
  const none = solvents.length > 0 && solvents.every(({ id }) => tried[id] === false);
  return (
    <View style={styles.list}>
      <Text bold>First on a piece of the same filament</Text>
      {solvents.map((solvent) => (
        <View key={solvent.id} style={styles.list}>
          <Text bold>{`In ${solvent.name}`}</Text>
          <Text kind="small" tone="soft">
            {`${here(solvent)}${solvent.care} Soak ${solvent.soakHours.join(' to ')} h. Flash point ${solvent.flashC} °C, lower limit ${solvent.lowerLimitPct} %, workplace limit ${solvent.exposurePpm} ppm; the safety data sheet decides.`}
          </Text>
          <Choice
            label={`A piece in ${solvent.name}`}
            options={ANSWERS}
            chosen={tried[solvent.id] === undefined ? [] : [tried[solvent.id] ? 'yes' : 'no']}
            onToggle={(id) => onTry(solvent.id, id === 'yes')}
          />
        </View>
      ))}
      {none ? (
        <Text bold tone="fault">
          None of them takes this filament: take another remedy.
        </Text>
      ) : null}
    </View>
  );
}

const styles = StyleSheet.create({ list: { gap: space.s } });
