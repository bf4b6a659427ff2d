import type { MachineSummary } from '@zealous/contracts/messages';
import { familyName } from '@zealous/core';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { FindField } from '../ui/FindField';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** From so many on, typing is quicker than looking. */
const MANY = 8;

export interface MachineChoiceProps {
  readonly machines: readonly MachineSummary[];
  readonly chosen: string | undefined;
  /** The one that was taken in last stands first. */
  readonly last?: string | undefined;
  readonly onPick: (id: string) => void;
}

/** The shop's machines with what kind each is; many are found by typing a part of name or kind. */
export function MachineChoice({ machines, chosen, last, onPick }: MachineChoiceProps) {
  const [typed, setTyped] = useState('');
  // Once one is picked the rest is out of the way: what comes next is then in sight.
  const [open, setOpen] = useState(chosen === undefined);
  const word = typed.trim().toLowerCase();
  const listed = [...machines]
    .map((item) => ({ id: item.id, label: `${item.name} · ${familyName(item.family)}` }))
    .filter(({ id, label }) => id === chosen || (open && label.toLowerCase().includes(word)))
    .sort((a, b) => Number(b.id === last) - Number(a.id === last));
  return (
    <View style={styles.column}>
      {open && machines.length >= MANY ? (
        <FindField label="Find a machine by name or kind" value={typed} onChange={setTyped} />
      ) : null}
      <Choice
        label="Machine"
        options={listed}
        chosen={chosen === undefined ? [] : [chosen]}
        onToggle={(id) => {
          onPick(id);
          setOpen(false);
        }}
      />
      {open || machines.length < 2 ? null : (
        <Button label="Another machine" kind="quiet" onPress={() => setOpen(true)} style={styles.start} />
      )}
      {listed.length === 0 && typed ? <Text tone="soft">{`No machine is called “${typed.trim()}”.`}</Text> : null}
    </View>
  );
}

const styles = StyleSheet.create({ column: { gap: space.s }, start: { alignSelf: 'flex-start' } });
