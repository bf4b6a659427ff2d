import {
  askedAt,
  GROUND_AFTER,
  judgeStop,
  minutesText,
  type DrawnLine,
  type PrintFile,
  type StopPlace,
} from '@zealous/core';
import { useLocalSearchParams } from 'expo-router';
import { useEffect, useRef, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { ProgressBar } from 'react-native-paper';
import { Button } from '../ui/Button';
import { Card, Notice } from '../ui/Card';
import { Choice } from '../ui/Choice';
import { NumberField } from '../ui/form/NumberField';
import { Page } from '../ui/Page';
import { chooseFile } from '../ui/pickFile';
import { Text } from '../ui/Text';
import { usePalette } from '../ui/theme';
import { space } from '../ui/tokens';
import { useWide } from '../ui/useWide';
import { drawLayer, readPrint, type Reading } from '../workers/print';
import { LayerDrawing, OverHeight, type Line } from './PrintPictures';
import { NOTHING_KNOWN, PrintToOrder, useOrderFigures, type OrderFigures } from './PrintToOrder';

const STRANDS = [
  { id: '1.75', label: '1.75 mm' },
  { id: '2.85', label: '2.85 mm' },
] as const;
const KINDS = '.gcode,.gco,.g,.nc,.txt,text/plain';

interface Known {
  readonly name: string;
  readonly file: File;
  readonly print: PrintFile;
}

/** What a failed print asked of strand and hot end where it stopped, read from its file. */
export function PrintScreen() {
  const { order, check } = useLocalSearchParams<{ readonly order?: string; readonly check?: string }>();
  return order && check ? <ForOrder order={order} check={check} /> : <ReadPrint from={NOTHING_KNOWN} />;
}

function ForOrder({ order, check }: { readonly order: string; readonly check: string }) {
  const { figures, failure } = useOrderFigures(order, check);
  return figures ? (
    <ReadPrint from={figures} />
  ) : (
    <Page title="Is this too fast for the hot end?" back="/tools">
      <Text tone="soft">{failure ?? 'Opening the order …'}</Text>
    </Page>
  );
}

function ReadPrint({ from }: { readonly from: OrderFigures }) {
  const [strand, setStrand] = useState(String(from.strandMm ?? STRANDS[0].id));
  const [known, setKnown] = useState<Known | undefined>(undefined);
  const [share, setShare] = useState<number | undefined>(undefined);
  const [problem, setProblem] = useState('');
  const reading = useRef<Reading<PrintFile> | undefined>(undefined);
  useEffect(() => () => reading.current?.cancel(), []);

  const read = async (file: File, mm: string): Promise<void> => {
    reading.current?.cancel();
    setProblem('');
    setShare(0);
    const mine = readPrint(file, { strandMm: Number(mm) }, setShare);
    reading.current = mine;
    try {
      const print = await mine.done;
      if (reading.current !== mine) return;
      if (print.layers.length === 0)
        setProblem(
          `“${file.name}” has no line with strand on it. Choose the file that was printed, as the machine got it.`,
        );
      else setKnown({ name: file.name, file, print });
    } catch (error) {
      if (reading.current === mine) setProblem((error as Error).message);
    } finally {
      if (reading.current === mine) {
        reading.current = undefined;
        setShare(undefined);
      }
    }
  };
  const choose = async (): Promise<void> => {
    const file = await chooseFile(KINDS);
    if (file) await read(file, strand);
  };

  return (
    <Page title="Is this too fast for the hot end?" back={from.order ? `/order/${from.order}/trace` : '/tools'}>
      <View style={styles.column}>
        {known ? null : (
          <Text tone="soft">
            From the print’s own file: how much flow it asks at each height, how often one piece of strand goes back
            through the gears, and what was asked where it stopped. The file stays on this device.
          </Text>
        )}
        <View style={styles.row}>
          <Button
            label={known ? 'Another file' : 'Choose the print file'}
            kind={known ? 'quiet' : 'main'}
            icon="save"
            onPress={() => void choose()}
          />
          <Choice
            label="Strand"
            options={STRANDS}
            chosen={[strand]}
            onToggle={(id) => {
              setStrand(id);
              if (known) void read(known.file, id);
            }}
          />
        </View>
        {share === undefined ? null : (
          <Card>
            <Text bold live>{`Reading: ${Math.round(share * 100)} %`}</Text>
            <ProgressBar progress={share} aria-label="Reading the file" />
            <Button label="Stop reading" kind="quiet" onPress={() => reading.current?.cancel()} />
          </Card>
        )}
        {problem ? <Notice title="Not read" text={problem} /> : null}
        {known ? (
          <Asked key={known.name + known.print.bytes + strand} known={known} strandMm={Number(strand)} from={from} />
        ) : null}
      </View>
    </Page>
  );
}

const MODES = [
  { id: 'height', label: 'Height, mm' },
  { id: 'minutes', label: 'Minutes' },
] as const;

function Asked({
  known,
  strandMm,
  from,
}: {
  readonly known: Known;
  readonly strandMm: number;
  readonly from: OrderFigures;
}) {
  const { print, name } = known;
  const palette = usePalette();
  const wide = useWide();
  const highest = Math.max(...print.layers.map(({ zMm }) => zMm));
  const [mode, setMode] = useState<'height' | 'minutes'>(
    from.heightMm === undefined && from.minutes !== undefined ? 'minutes' : 'height',
  );
  const [height, setHeight] = useState<number | undefined>(from.heightMm);
  const [minutes, setMinutes] = useState<number | undefined>(from.minutes);
  const [melts, setMelts] = useState<number | undefined>(from.meltsMm3PerS);
  const value = mode === 'height' ? height : minutes;
  const stop: StopPlace | undefined =
    value === undefined ? undefined : mode === 'height' ? { heightMm: value } : { minutes: value };
  const asked = stop && askedAt(print, stop);
  const verdict = asked && judgeStop(asked, melts);
  const lines: readonly Line[] = [
    { zMm: asked?.zMm, label: 'stopped', tone: 'fault' },
    ...(melts === undefined ? [] : [{ value: melts, label: 'it melts', tone: 'warm' as const }]),
  ];
  const than = (rank: number): string =>
    rank < 0.005 ? 'no more than elsewhere' : `more than in ${Math.round(rank * 100)}\u00a0% of the layers`;
  return (
    <View style={styles.column}>
      <Text>
        {`${name}: ${print.layers.length} layers to ${highest.toFixed(1)} mm, about ${minutesText(print.seconds / 60)}, ${(print.strandMm / 1000).toFixed(1)} m of strand, drawn back ${print.retractions} times.`}
      </Text>
      {print.faults.length ? (
        <Text kind="small" tone="soft">
          {`Not understood: ${print.faults
            .slice(0, 3)
            .map(({ line, reason }) => `line ${line}, ${reason}`)
            .join('; ')}${print.faults.length > 3 ? ' and others' : ''}.`}
        </Text>
      ) : null}
      <Text bold heading={2}>
        Where did it stop?
      </Text>
      <View style={styles.row}>
        <Choice label="Stopped at" options={MODES} chosen={[mode]} onToggle={setMode} />
        <NumberField
          key={mode}
          label={mode === 'height' ? 'Stopped at height, mm' : 'Stopped after, min'}
          value={value}
          fits={(n) => n >= 0 && n <= 100_000}
          onChange={mode === 'height' ? setHeight : setMinutes}
          style={styles.field}
        />
        <NumberField
          label="This hot end melts, mm³/s"
          value={melts}
          fits={(n) => n > 0 && n <= 200}
          onChange={setMelts}
          style={styles.field}
        />
      </View>
      {from.meltsMm3PerS !== undefined ? (
        <Text kind="small" tone="soft">
          What it melts is taken from the feed curve measured in this order.
        </Text>
      ) : null}
      {stop && asked && verdict ? (
        <Card edge={verdict === 'ordinary' ? 'clear' : 'fault'}>
          <Text kind="large" bold testID="print-verdict">
            {verdict === 'beyond'
              ? 'More flow than this hot end melts'
              : verdict === 'retractions'
                ? 'Dense retractions: one piece of strand was ground'
                : 'Nothing unusual was asked there'}
          </Text>
          <Text>
            {`Layer ${asked.layer + 1} at ${asked.zMm.toFixed(2)} mm, ${minutesText(asked.fromMin)} after the start. Flow: up to ${asked.peakFlow.toFixed(1)} mm³/s, ${than(asked.flowRank)}. One piece of strand was drawn back ${asked.samePiece === 1 ? 'once' : `${asked.samePiece} times`}, ${than(asked.pieceRank)}. ${asked.targetC ? `Set to ${asked.targetC}\u00a0°C.` : 'No temperature is set in the file.'}`}
          </Text>
          {melts === undefined ? (
            <Text kind="small" tone="soft">
              Flow is not judged until it is known what the hot end melts: measure its feed curve, or take it from its
              data sheet.
            </Text>
          ) : null}
          {from.order && from.place ? (
            <>
              <PrintToOrder
                order={from.order}
                place={from.place}
                intake={from.intake}
                stop={stop}
                verdict={verdict}
                asked={asked}
              />
              <Text kind="small" tone="soft">
                {`Where it stopped is written down too: before it counts as proved, the same job must run past ${'heightMm' in stop ? `${stop.heightMm} mm, by the file ${minutesText(asked.toMin)} after its start` : minutesText(stop.minutes)}.`}
              </Text>
            </>
          ) : null}
        </Card>
      ) : (
        <Text tone="soft">Give the height or the minutes, as the owner or the piece itself tells.</Text>
      )}
      <View style={wide ? styles.pair : styles.column}>
        <OverHeight
          title="Flow over height, mm³/s"
          label={`flow over height, at most ${Math.max(...print.layers.map((l) => l.peakFlow)).toFixed(1)} mm³/s`}
          print={print}
          of={(layer) => layer.peakFlow}
          lines={lines}
          colour={palette.deed}
        />
        <OverHeight
          title="One piece of strand drawn back, times"
          label={`retractions on one piece of strand over height, at most ${print.worstPiece?.times ?? 0}`}
          print={print}
          of={(layer) => layer.samePiece}
          lines={[
            { zMm: asked?.zMm, label: 'stopped', tone: 'fault' },
            { value: GROUND_AFTER, label: 'grinds', tone: 'warm' },
          ]}
          colour={palette.deed}
        />
      </View>
      <Layer known={known} strandMm={strandMm} layer={asked?.layer ?? print.worstPiece?.layer ?? 0} melts={melts} />
      <Text kind="small" tone="soft">
        Times are reckoned with even acceleration, 1500 mm/s² unless the file sets it, and corners rounded by 0.02 mm;
        waiting for heat is not in them.
      </Text>
    </View>
  );
}

/** The layer of the stop, or the one with the worst piece: read from the file once more. */
function Layer({
  known,
  strandMm,
  layer,
  melts,
}: {
  readonly known: Known;
  readonly strandMm: number;
  readonly layer: number;
  readonly melts: number | undefined;
}) {
  const [drawing, setDrawing] = useState<{ readonly layer: number; readonly lines: readonly DrawnLine[] } | undefined>(
    undefined,
  );
  const { file } = known;
  useEffect(() => {
    let stale = false;
    // While a height is typed only the last layer is drawn.
    let mine: Reading<readonly DrawnLine[]> | undefined;
    const timer = setTimeout(() => {
      mine = drawLayer(file, strandMm, layer);
      mine.done.then(
        (lines) => {
          if (!stale) setDrawing({ layer, lines });
        },
        () => undefined,
      );
    }, 400);
    return () => {
      stale = true;
      clearTimeout(timer);
      mine?.cancel();
    };
  }, [file, strandMm, layer]);
  const z = known.print.layers[layer]?.zMm ?? 0;
  return drawing?.layer === layer && drawing.lines.length ? (
    <LayerDrawing title={`Layer ${layer + 1}, ${z.toFixed(2)} mm`} lines={drawing.lines} melts={melts} />
  ) : (
    <Text kind="small" tone="soft">{`Drawing layer ${layer + 1} …`}</Text>
  );
}

const styles = StyleSheet.create({
  column: { gap: space.m, maxWidth: 980, width: '100%', alignSelf: 'center' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: space.m, alignItems: 'center' },
  pair: { flexDirection: 'row', gap: space.l },
  field: { flexGrow: 1, flexBasis: 180 },
});
