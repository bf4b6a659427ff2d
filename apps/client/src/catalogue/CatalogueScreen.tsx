import {
  CHANGE_KINDS,
  KIND_NAMES,
  type Catalogue,
  type CatalogueRecord,
  type ChangeKind,
  type ShopCatalogue,
  type StationKind,
} from '@zealous/core';
import { useRouter, type Href } from 'expo-router';
import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { problemText, useReplaceCatalogueMutation } from '../data/api';
import { useAppSelector } from '../data/store';
import { leftOutOf } from '../data/shopCatalogue';
import { useCatalogue } from '../data/useCatalogue';
import { Choice } from '../ui/Choice';
import { FindField } from '../ui/FindField';
import { Table, type Column } from '../ui/Table';
import { Page } from '../ui/Page';
import { pickFile } from '../ui/pickFile';
import { saveFile } from '../ui/saveFile';
import { Button } from '../ui/Button';
import { titleOf } from './fresh';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';

const NAMES: Readonly<Record<ChangeKind, string>> = {
  modes: 'What fails',
  checks: 'Checks',
  remedies: 'Remedies',
  materials: 'Filaments',
  solvents: 'Solvents',
  terms: 'The shop',
  tools: 'Tools',
  cautions: 'Cautions',
  proofs: 'Proofs',
  standing: 'Steps of every plan',
  symptoms: 'Symptoms',
  onsets: 'When it begins',
  dimensions: 'What is observed',
  before: 'Done before',
};
const ADD: Readonly<Partial<Record<ChangeKind, string>>> = {
  modes: 'Add a failure mode',
  checks: 'Add a check',
  remedies: 'Add a remedy',
  materials: 'Add a filament',
  solvents: 'Add a solvent',
  tools: 'Add a tool',
  cautions: 'Add a caution',
  proofs: 'Add a proof',
  symptoms: 'Add a symptom',
  onsets: 'Add a beginning',
  dimensions: 'Add a dimension',
  before: 'Add something done before',
};

/** One line on a record, in the trade's words. */
function lineOf(kind: ChangeKind, record: CatalogueRecord): string {
  if (kind === 'modes' && 'where' in record) {
    const where = Object.keys(record.where).map((id) => KIND_NAMES[id as StationKind].toLowerCase());
    return `weight ${record.weight}; at ${where.join(', ')}`;
  }
  if ('printC' in record)
    return `print ${record.printC} °C, clear ${record.unclogC} °C${record.solvents ? `; ${record.solvents.join(', ')}` : ''}`;
  if ('flashC' in record) return `flash point ${record.flashC} °C, workplace limit ${record.exposurePpm} ppm`;
  if ('hourlyRate' in record) return `an hour at the bench: ${record.hourlyRate}`;
  if ('minutes' in record)
    return `${record.minutes} min${record.heat === 'any' ? '' : `, ${record.heat}`}; ${record.how}`;
  return '';
}

const found = (record: CatalogueRecord, kind: ChangeKind, words: string): boolean =>
  words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => `${record.id} ${titleOf(record)} ${lineOf(kind, record)}`.toLowerCase().includes(word));

const listOf = (catalogue: Catalogue, kind: ChangeKind): readonly CatalogueRecord[] => catalogue[kind];

/** Everything that can fail, be checked and be done: to read, to search, and to make the shop's own. */
export function CatalogueScreen() {
  const router = useRouter();
  const catalogue = useCatalogue();
  const changes = useAppSelector((root) => root.shop.catalogue);
  const leftOut = useAppSelector((root) => leftOutOf(root.shop));
  const [replace] = useReplaceCatalogueMutation();
  const [kind, setKind] = useState<ChangeKind>('modes');
  const [words, setWords] = useState('');
  const [said, setSaid] = useState<{ readonly text: string; readonly bad: boolean } | undefined>(undefined);
  const mark = (id: string): string | undefined => {
    const change = changes.changes.find((item) => item.kind === kind && item.id === id);
    return change && { add: 'added here', change: 'changed here', retire: 'retired here' }[change.op];
  };
  const columns: readonly Column<CatalogueRecord>[] = [
    { id: 'name', title: 'Name', value: titleOf },
    { id: 'what', title: 'What it says', value: (record) => lineOf(kind, record), share: 2 },
    { id: 'own', title: 'The shop’s own', value: ({ id }) => mark(id) ?? '' },
  ];
  const records = listOf(catalogue, kind).filter((record) => found(record, kind, words));
  const bringIn = async (): Promise<void> => {
    const text = await pickFile('application/json,.json');
    if (text === undefined) return;
    try {
      const next = await replace(JSON.parse(text) as ShopCatalogue).unwrap();
      setSaid({ text: `${next.changes.length} changes of the shop are in force.`, bad: false });
    } catch (error) {
      const why = error instanceof SyntaxError ? `it is not JSON: ${error.message}` : problemText(error);
      setSaid({ text: `The file was not taken: ${why}`, bad: true });
    }
  };
  return (
    <Page title="Catalogue">
      <Choice
        label="Part of the catalogue"
        options={CHANGE_KINDS.map((id) => ({
          id,
          label: id === 'terms' ? NAMES[id] : `${NAMES[id]}, ${catalogue[id].length}`,
        }))}
        chosen={[kind]}
        onToggle={setKind}
      />
      <FindField label="Search" value={words} onChange={setWords} style={styles.gap} />
      <View style={styles.row}>
        {ADD[kind] ? (
          <Button label={ADD[kind]} icon="plus" onPress={() => router.push(`/catalogue/${kind}/new` as Href)} />
        ) : null}
        <Button
          label="Save the shop’s changes"
          icon="save"
          kind="quiet"
          onPress={() => saveFile('shop-catalogue.json', 'application/json', JSON.stringify(changes, null, 2))}
        />
        <Button label="Changes from a file" kind="quiet" onPress={() => void bringIn()} />
      </View>
      {said ? (
        <Text tone={said.bad ? 'fault' : 'clear'} bold live>
          {said.text}
        </Text>
      ) : null}
      {leftOut.map(({ change, why }) => (
        <Text key={`${change.kind}/${change.id}`} tone="fault">
          {`The shop’s change to ${change.id} does not hold together with what is delivered now, and is left out: ${why}. Open orders go on without it.`}
        </Text>
      ))}
      <Text kind="small" tone="soft">
        {changes.changes.length === 0
          ? 'As delivered. What you change here stays your shop’s own; a new delivery does not overwrite it.'
          : `${changes.changes.length} ${changes.changes.length === 1 ? 'record is' : 'records are'} the shop’s own.`}
      </Text>
      {records.length === 0 ? <Text style={styles.gap}>Nothing has these words. Search for fewer of them.</Text> : null}
      <View style={styles.list}>
        <Table
          label={NAMES[kind]}
          columns={columns}
          rows={records}
          keyOf={({ id }) => id}
          hrefOf={({ id }) => `/catalogue/${kind}/${id}` as Href}
          faded={(record) => 'retired' in record && record.retired === true}
          found
        />
      </View>
    </Page>
  );
}

const styles = StyleSheet.create({
  gap: { marginTop: space.m },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, marginVertical: space.s },
  list: { gap: space.s, marginTop: space.m },
});
