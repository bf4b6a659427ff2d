import { familyName } from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useMachinesQuery } from '../data/api';
import { Notice } from '../ui/Card';
import { Page } from '../ui/Page';
import { Tap } from '../ui/Tap';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

export function MachinesScreen() {
  const router = useRouter();
  const { data, isLoading, isError, refetch } = useMachinesQuery();
  return (
    <Page title="Machines">
      {isLoading ? <Notice title="Fetching the machines …" /> : null}
      {isError && !data ? (
        <Notice
          title="The machines could not be fetched"
          text="The server does not answer."
          action="Try again"
          onAction={() => void refetch()}
        />
      ) : null}
      {data?.length === 0 ? (
        <Notice
          title="No machine yet"
          text="Machines are described in the project’s open format; the demo brings two."
        />
      ) : null}
      <View style={styles.list}>
        {data?.map((machine) => (
          <Tap
            key={machine.id}
            label={machine.name}
            icon="machine"
            onPress={() => router.push(`/machines/${machine.id}` as Href)}
            style={styles.start}
          >
            <Text kind="small" tone="soft">
              {familyName(machine.family)}
            </Text>
            <Text kind="small">{`${machine.openOrders} open, ${machine.orders} ${machine.orders === 1 ? 'order' : 'orders'} in all`}</Text>
          </Tap>
        ))}
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  list: { gap: space.s },
  start: { justifyContent: 'flex-start' },
});
