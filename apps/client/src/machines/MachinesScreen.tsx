import type { MachineSummary } from '@zealous/contracts/messages';
import { FAMILIES, familyName, machineOfFamily, type Machine } from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { StyleSheet, View } from 'react-native';
import { useState } from 'react';
import { problemText, useCheckMachineMutation, useMachinesQuery, useRetiredMachinesQuery } from '../data/api';
import { buildingBegun } from '../data/builderSlice';
import { useAppDispatch, useAppSelector } from '../data/store';
import { pickFile } from '../ui/pickFile';
import { Sheet } from '../ui/Sheet';
import { Notice, Section } from '../ui/Card';
import { Table, type Column } from '../ui/Table';
import { Page } from '../ui/Page';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const COLUMNS: readonly Column<MachineSummary>[] = [
  { id: 'name', title: 'Machine', value: (machine) => machine.name },
  { id: 'kind', title: 'Kind', value: (machine) => familyName(machine.family), share: 2 },
  {
    id: 'open',
    title: 'Open',
    value: (machine) => machine.openOrders,
    words: (machine) => `${machine.openOrders} open`,
  },
  {
    id: 'orders',
    title: 'Orders',
    value: (machine) => machine.orders,
    words: ({ orders }) => `${orders} ${orders === 1 ? 'order' : 'orders'} in all`,
  },
];

/** Those that have left the shop: when, and how often they were here. */
const RETIRED: readonly Column<MachineSummary>[] = [
  ...COLUMNS.filter(({ id }) => id !== 'open'),
  { id: 'retired', title: 'Left the shop', value: (machine) => machine.retiredAt?.slice(0, 10) ?? '' },
];

export function MachinesScreen() {
  const router = useRouter();
  const dispatch = useAppDispatch();
  const { data, isLoading, isError, refetch } = useMachinesQuery();
  const { data: retired = [] } = useRetiredMachinesQuery();
  const under = useAppSelector((root) => root.builder.machine);
  const [check] = useCheckMachineMutation();
  const [templates, setTemplates] = useState(false);
  const [failure, setFailure] = useState<string | undefined>(undefined);
  const begin = (machine: Machine): void => {
    dispatch(buildingBegun({ machine }));
    router.push('/machines/builder' as Href);
  };
  const fromFile = async (): Promise<void> => {
    const text = await pickFile('application/json,.json');
    if (text === undefined) return;
    try {
      begin(await check(JSON.parse(text)).unwrap());
    } catch (error) {
      setFailure(
        error instanceof SyntaxError
          ? `The file is not JSON: ${error.message}. Choose a machine file.`
          : `The file was not taken. ${problemText(error)}`,
      );
    }
  };
  return (
    <Page title="Machines">
      <View style={styles.row}>
        <Button label="Describe a machine" icon="plus" kind="main" onPress={() => setTemplates(true)} />
        <Button label="From a file" icon="save" onPress={() => void fromFile()} />
      </View>
      {failure ? (
        <Text tone="fault" bold live>
          {failure}
        </Text>
      ) : null}
      {under ? (
        <Notice
          title={`${under.name} is being described`}
          text="It is kept on this device until it is stored or given up."
          action="Go on"
          onAction={() => router.push('/machines/builder' as Href)}
        />
      ) : null}
      {templates ? (
        <Sheet title="Which is nearest?" open onClose={() => setTemplates(false)}>
          <Text tone="soft">
            Everything about it can be changed afterwards; a converted machine differs from its label.
          </Text>
          {FAMILIES.map((family) => (
            <Button
              key={family.id}
              label={family.name}
              onPress={() => {
                setTemplates(false);
                begin(machineOfFamily(family.id, 'new-machine', 'New machine'));
              }}
            >
              <Text kind="small" tone="soft">
                {family.summary}
              </Text>
            </Button>
          ))}
        </Sheet>
      ) : null}
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
          text="Machines are described in the project’s open format; the demo brings ten."
        />
      ) : null}
      {data && data.length > 0 ? (
        <View style={styles.list}>
          <Table
            label="Machines"
            columns={COLUMNS}
            rows={data}
            keyOf={({ id }) => id}
            hrefOf={({ id }) => `/machines/${id}` as Href}
            first={{ id: 'name', desc: false }}
          />
        </View>
      ) : null}
      {retired.length > 0 ? (
        <Section title="Retired">
          <Table
            label="Retired machines"
            columns={RETIRED}
            rows={retired}
            keyOf={({ id }) => id}
            hrefOf={({ id }) => `/machines/${id}` as Href}
            first={{ id: 'retired', desc: true }}
          />
        </Section>
      ) : null}
    </Page>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', gap: space.s, flexWrap: 'wrap' },
  list: { gap: space.s, marginTop: space.m },
});
