import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useDropLinkMutation, useLinksQuery, useSetLinkMutation } from '../data/api';
import { AskFirst } from '../ui/AskFirst';
import { Button } from '../ui/Button';
import { Section } from '../ui/Card';
import { Field } from '../ui/Field';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

/** Where a machine is on the line: by network, by a serial port of the server, or the simulated printer. */
export function LinkCard({ machine }: { readonly machine: string }) {
  const { data: links } = useLinksQuery();
  const known = links?.[machine];
  const [typed, setTyped] = useState<string | undefined>(undefined);
  const [problem, setProblem] = useState('');
  const [set] = useSetLinkMutation();
  const [drop] = useDropLinkMutation();
  const address = typed ?? known ?? '';
  const put = (next: string): void => {
    setProblem('');
    set({ machine, address: next })
      .unwrap()
      .then(
        () => setTyped(undefined),
        (error: unknown) => setProblem(problemText(error, () => 'The address')),
      );
  };
  return (
    <Section title="On the line">
      <Text kind="small" tone="soft">
        {known
          ? `Reached at ${known === 'stand-in' ? 'the simulated printer beside this server' : known}. Its open order shows what it says.`
          : 'A machine whose firmware speaks the plain line protocol can be read and moved from its order: by network (tcp://192.168.1.20:8080) or by a serial port of this server (serial:/dev/ttyUSB0@115200).'}
      </Text>
      <Field label="Address" value={address} most={400} onChange={setTyped} error={problem || undefined} />
      <View style={styles.row}>
        <Button
          label="Keep this address"
          disabled={address === '' || address === known}
          onPress={() => put(address.trim())}
        />
        {known === undefined ? (
          <Button label="Use the simulated printer" kind="quiet" onPress={() => put('stand-in')} />
        ) : (
          <AskFirst
            label="Take it off the line"
            question="Its order shows nothing of it any more. Take it off?"
            yes="Take it off"
            no="Leave it"
            onYes={() => {
              void drop(machine);
              setTyped(undefined);
            }}
          />
        )}
      </View>
    </Section>
  );
}

const styles = StyleSheet.create({ row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s } });
