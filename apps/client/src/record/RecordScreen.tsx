import { recordMarkdown, recordOf, type OrderRecord } from '@zealous/core';
import { useState } from 'react';
import { useCatalogue } from '../data/useCatalogue';
import { StyleSheet, View } from 'react-native';
import type { OrderPartProps } from '../orders/OrderShell';
import { printDocument } from '../ui/printDocument';
import { Section } from '../ui/Card';
import { PhotoStrip } from '../photos/PhotoStrip';
import { openFile, saveFile } from '../ui/saveFile';
import { Button } from '../ui/Button';
import { ShareButton } from '../ui/ShareButton';
import { Main } from '../ui/Main';
import { Text } from '../ui/Text';
import { space } from '../ui/tokens';
import { CloseForm, Reopen } from './CloseForm';
import { Summary } from './Summary';

/** What was found, done, measured and proved; closing, and taking it along. */
export function RecordScreen({ order, record }: OrderPartProps) {
  const { machine, state, events } = order;
  const catalogue = useCatalogue();
  const report = recordOf(machine, catalogue, events);
  const name = `${report.number}-${machine.id}`;
  return (
    <Main label="Record" contentContainerStyle={styles.body}>
      <Text kind="title" heading={2}>
        {`Order ${report.number}`}
      </Text>
      {state.closed ? null : <CloseForm order={order} record={record} report={report} />}
      <Summary report={report} />
      <PhotoStrip orderId={order.id} state={state} record={record} about="order" label="Picture for the record" />
      <FindingPictures order={order} record={record} findings={report.findings} />
      <Section title="Take it along">
        <View style={styles.wrap}>
          <Button label="Record as PDF" icon="save" onPress={() => openFile(`/api/orders/${order.id}/record.pdf`)} />
          <Button
            label="One page for the owner"
            icon="save"
            onPress={() => openFile(`/api/orders/${order.id}/owner.pdf`)}
          />
          {state.timers.length > 0 || report.watch.length > 0 || report.watchOn ? (
            <Button
              label="Dates for a calendar"
              icon="timer"
              onPress={() => openFile(`/api/orders/${order.id}/dates.ics`)}
            />
          ) : null}
          <Button label="Print" icon="print" onPress={() => void printDocument(name, recordMarkdown(report))} />
          <ShareButton
            label="Send the record to somebody"
            what={() => ({ title: name, text: recordMarkdown(report) })}
            copied="The record is copied: put it into a message."
          />
          <Button
            label="Save Markdown"
            icon="save"
            onPress={() => saveFile(`${name}.md`, 'text/markdown', recordMarkdown(report))}
          />
          <Button
            label="Save JSON"
            icon="save"
            onPress={() => saveFile(`${name}.json`, 'application/json', JSON.stringify(report, null, 2))}
          />
        </View>
      </Section>
      {state.closed ? <Reopen eventId={state.closed.eventId} record={record} /> : null}
    </Main>
  );
}

/** Pictures of single findings: those there are, and the way to another. */
function FindingPictures({ order, record, findings }: OrderPartProps & { readonly findings: OrderRecord['findings'] }) {
  const [open, setOpen] = useState(false);
  const { state, id } = order;
  const shown = findings.filter((finding) => open || state.photos.some((photo) => photo.about === finding.id));
  return (
    <View style={styles.column}>
      {shown.map((finding) => (
        <View key={finding.id}>
          <Text kind="small">{`${finding.check}: ${finding.result.toLowerCase()}`}</Text>
          <PhotoStrip orderId={id} state={state} record={record} about={finding.id} label="Picture of this finding" />
        </View>
      ))}
      {open || findings.length === 0 ? null : (
        <Button
          label="Pictures of findings …"
          kind="quiet"
          icon="camera"
          onPress={() => setOpen(true)}
          style={styles.start}
        />
      )}
    </View>
  );
}

const styles = StyleSheet.create({
  grow: { flex: 1 },
  body: { padding: space.l, gap: space.m, maxWidth: 860, width: '100%', alignSelf: 'center' },
  column: { gap: space.s },
  start: { alignSelf: 'flex-start' },
  wrap: { flexDirection: 'row', flexWrap: 'wrap', gap: space.s, alignItems: 'center' },
});
