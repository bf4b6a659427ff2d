import {
  CHANGE_KINDS,
  changeBetween,
  deliveredCatalogue,
  percent,
  slugOf,
  type CatalogueRecord,
  type ChangeKind,
  type Preview,
  type ShopChange,
} from '@zealous/core';
import { recordFaults } from '@zealous/contracts/catalogue';
import { useRouter } from 'expo-router';
import { useEffect, useMemo, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import {
  problemText,
  useDropChangeMutation,
  useMachineQuery,
  useMachinesQuery,
  useSetChangeMutation,
} from '../data/api';
import { useAppSelector } from '../data/store';
import { useCatalogue } from '../data/useCatalogue';
import { AskFirst } from '../ui/AskFirst';
import { Card, Notice, Section } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { Page } from '../ui/Page';
import { Button } from '../ui/Button';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { tracer } from '../workers/trace';
import { fieldsOf } from './fields';
import { freshRecord, titleOf } from './fresh';
import type { Loose } from '../ui/form/fields';
import { RecordForm } from '../ui/form/RecordForm';
import { valuesOf } from '../ui/form/recordValues';
import { useDraft } from '../ui/form/useDraft';
import { useRecordForm } from '../ui/form/useRecordForm';
import { catalogueFields } from './EffectFields';

/** A filament or solvent stays known: orders name it. */
const RETIRABLE: readonly ChangeKind[] = ['modes', 'checks', 'remedies'];

/** One record of the catalogue: read, changed, tried on a machine, stored as the shop's own, or retired. */
export function CatalogueRecordScreen({ kind: asked, id }: { readonly kind: string; readonly id: string }) {
  const router = useRouter();
  const catalogue = useCatalogue();
  const kind = CHANGE_KINDS.find((known) => known === asked);
  const stored = kind && (catalogue[kind] as readonly CatalogueRecord[]).find((record) => record.id === id);
  if (!kind || (!stored && id !== 'new'))
    return (
      <Page title="Catalogue" back="/catalogue">
        <Notice
          title="There is no such record"
          text="It may have been removed."
          action="To the catalogue"
          onAction={() => router.replace('/catalogue')}
        />
      </Page>
    );
  return <RecordPage key={`${kind}/${id}`} kind={kind} id={id} stored={stored} />;
}

function RecordPage({
  kind,
  id,
  stored,
}: {
  readonly kind: ChangeKind;
  readonly id: string;
  readonly stored: CatalogueRecord | undefined;
}) {
  const router = useRouter();
  const catalogue = useCatalogue();
  const by = useAppSelector((root) => root.settings.by);
  const changes = useAppSelector((root) => root.shop.catalogue.changes);
  const [set, setting] = useSetChangeMutation();
  const [drop] = useDropChangeMutation();
  const [failure, setFailure] = useState<string | undefined>(undefined);
  const isNew = stored === undefined;
  const text = JSON.stringify(stored ?? freshRecord(kind, 'new'));
  const base = useMemo(() => JSON.parse(text) as Loose, [text]);
  const draft = useDraft(`catalogue:${kind}/${id}`, base);
  const [round, setRound] = useState(0);
  // One list of fields as long as the page stands: its rows keep what is typed in them.
  const [fields] = useState(() => fieldsOf(kind, catalogue));
  const named = (record: Loose): CatalogueRecord =>
    ({
      ...record,
      ...(isNew ? { id: slugOf(String(titleOf(record as unknown as CatalogueRecord)), 'new', 50) } : {}),
    }) as unknown as CatalogueRecord;
  const form = useRecordForm({
    fields,
    record: draft.now ?? base,
    judge: (record) => recordFaults(kind, named(record)),
    onChange: (record) => {
      setFailure(undefined);
      draft.keep(record);
    },
  });
  const begin = (record: Loose): void => {
    form.reset(valuesOf(fields, record));
    setRound((n) => n + 1);
  };
  const shown = useRef(base);
  useEffect(() => {
    // The shop's own changes may come after the page does.
    if (shown.current !== base && draft.now === undefined) begin(base);
    shown.current = base;
  });
  const wanted = named(draft.now ?? base);
  const delivered = (deliveredCatalogue[kind] as readonly CatalogueRecord[]).find((item) => item.id === id);
  const change = changes.find((item) => item.kind === kind && item.id === id);
  const next = changeBetween(kind, delivered, wanted);
  const faults = draft.now ? recordFaults(kind, wanted) : [];
  const run = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      draft.end();
      router.dismissTo('/catalogue');
    } catch (error) {
      setFailure(problemText(error));
    }
  };
  const store = form.handleSubmit(
    () => run(() => (next ? set({ ...next, by }).unwrap() : drop({ kind, id }).unwrap())),
    () =>
      setFailure(
        faults.length === 1
          ? 'One field does not fit yet: it is marked.'
          : `${faults.length} fields do not fit yet: they are marked.`,
      ),
  );
  return (
    <Page
      title={isNew ? 'New record' : titleOf(wanted)}
      back="/catalogue"
      foot={
        <View style={styles.foot}>
          {failure ? (
            <Text tone="fault" bold live>
              {failure}
            </Text>
          ) : null}
          <View style={styles.row}>
            {change && change.op !== 'add' ? (
              <Button
                label="Back to what is delivered"
                kind="quiet"
                icon="undo"
                onPress={() => void run(() => drop({ kind, id }).unwrap())}
              />
            ) : null}
            {!isNew && RETIRABLE.includes(kind) && change?.op !== 'retire' ? (
              <Button
                label="Retire it"
                kind="quiet"
                onPress={() => void run(() => set({ kind, id, op: 'retire', by }).unwrap())}
              />
            ) : null}
            <Button
              label="Store as this shop’s own"
              kind="main"
              icon="save"
              disabled={draft.now === undefined || setting.isLoading}
              onPress={() => void store()}
              style={styles.grow}
            />
          </View>
        </View>
      }
    >
      <View style={styles.measure}>
        {change ? (
          <Text kind="small" bold tone="deed">
            {
              {
                add: 'Added by this shop',
                change: 'Changed by this shop',
                retire: 'Retired by this shop: no longer offered',
              }[change.op]
            }
            {change.by ? `, ${change.by}` : ''}
          </Text>
        ) : null}
        {draft.found && draft.now ? (
          <Card edge="warm">
            <Text bold>What was typed here before is not stored yet.</Text>
            {draft.overtaken ? (
              <Text>The record was changed elsewhere since. Storing puts what stands here in its place.</Text>
            ) : null}
            <AskFirst
              label="Throw it away"
              question="What was typed here and not stored is lost; the record is shown as it is stored."
              yes="Throw it away"
              no="Keep it"
              onYes={() => {
                begin(base);
                draft.end();
              }}
            />
          </Card>
        ) : null}
        <RecordForm key={round} form={form} own={catalogueFields(catalogue)} fields={fields} />
        {draft.now && next && faults.length === 0 && kind !== 'terms' && kind !== 'solvents' ? (
          <TryIt change={next} />
        ) : null}
        <Text kind="small" tone="soft" style={styles.gap}>
          {RETIRABLE.includes(kind)
            ? 'Weights and shares as delivered are trade judgement with no published source.'
            : 'What the label, the maker’s sheet or the safety data sheet says goes before these figures.'}
        </Text>
      </View>
    </Page>
  );
}

/** What a change would change on a machine of the shop. */
function TryIt({ change }: { readonly change: ShopChange }) {
  const machines = useMachinesQuery();
  const [id, setId] = useState<string | undefined>(undefined);
  const { currentData: machine } = useMachineQuery(id ?? '', { skip: id === undefined });
  const [preview, setPreview] = useState<Preview | undefined>(undefined);
  const [failure, setFailure] = useState<string | undefined>(undefined);
  const work = (): void => {
    if (!machine) return;
    setPreview(undefined);
    tracer()
      .previewChange(machine, change)
      .then(setPreview, (error: Error) => setFailure(error.message));
  };
  return (
    <Section title="What would it change?">
      <Choice
        label="Machine"
        options={(machines.data ?? []).map((item) => ({ id: item.id, label: item.name }))}
        chosen={id ? [id] : []}
        onToggle={(next) => {
          setPreview(undefined);
          setId(next);
        }}
      />
      {machine ? <Button label={`Work it out for ${machine.name}`} onPress={work} style={styles.start} /> : null}
      {failure ? <Text tone="fault">{failure}</Text> : null}
      {preview ? (
        <View style={styles.preview}>
          {preview.stations.length === 0 ? <Text>Nothing would move on this machine before a finding.</Text> : null}
          {preview.stations.slice(0, 8).map((station) => (
            <Text
              key={station.name}
            >{`${station.name} goes from ${percent(station.from)} to ${percent(station.to)}.`}</Text>
          ))}
          <Text kind="small" tone="soft">{`First checks now: ${preview.before.join('; ')}`}</Text>
          <Text kind="small" tone="soft">{`Then: ${preview.after.join('; ')}`}</Text>
        </View>
      ) : null}
    </Section>
  );
}

const styles = StyleSheet.create({
  measure: { maxWidth: 760, width: '100%', alignSelf: 'center', gap: space.m },
  foot: { padding: space.m, gap: space.s, maxWidth: 792, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s },
  grow: { flexGrow: 1 },
  gap: { marginTop: space.l },
  start: { alignSelf: 'flex-start' },
  preview: { gap: space.xs },
});
