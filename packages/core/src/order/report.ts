import { modeById, remedyById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { calibrateFeed, type FeedCalibration } from '../physics/feed';
import { routeOf } from '../path/route';
import { stepOf } from '../plan/steps';
import { NOT_SURE } from '../trace/context';
import type { OrderEvent } from './events';
import { proofsFor } from '../plan/proofs';
import { placesOf, reduceOrder } from './reduce';
import type { OrderState } from './state';

export interface RecordFinding {
  readonly at: string;
  readonly check: string;
  readonly result: string;
  readonly value?: number;
  readonly unit?: string;
}

/** The record of an order, as it is printed and saved. */
export interface OrderRecord {
  readonly format: 'zealous-tracer/record';
  readonly version: 1;
  readonly number: string;
  readonly machine: string;
  readonly takenIn: string;
  readonly takenInBy: string;
  readonly closed?: string;
  readonly outcome?: string;
  readonly seen: readonly string[];
  readonly began?: string;
  readonly filament: string;
  readonly cause?: { readonly place: string; readonly mode: string };
  readonly remedies: readonly { readonly name: string; readonly outcome: string }[];
  readonly failedRepairs: readonly string[];
  /** Causes cleared in this visit besides the last one. */
  readonly clearedToo: readonly string[];
  readonly parts: readonly {
    readonly part: string;
    readonly place: string;
    readonly maker?: string;
    readonly batch?: string;
    readonly price?: number;
  }[];
  readonly findings: readonly RecordFinding[];
  readonly proofs: readonly { readonly name: string; readonly passed: boolean | null; readonly note?: string }[];
  readonly feed?: FeedCalibration & {
    readonly fedMm: number;
    readonly askedMm: number;
    readonly oldStepsPerMm: number;
  };
  readonly handsOnMinutes: number;
  readonly elapsedMinutes: number;
  readonly overrides: readonly string[];
  readonly watch: readonly string[];
  readonly notes: readonly string[];
}

/** Fed length before and after is the measurement of the repair; the feed proof of the order, calibrated. */
function feedOf(state: OrderState) {
  const feed = state.proofs['feed'];
  if (!feed?.fedMm || !feed.askedMm || !feed.oldStepsPerMm) return undefined;
  const { askedMm, fedMm, oldStepsPerMm } = feed;
  return { ...calibrateFeed(askedMm, fedMm, oldStepsPerMm, feed.readingMm ?? 0.5), askedMm, fedMm, oldStepsPerMm };
}

/** Minutes of work by the catalogue and the access data, for what was recorded as done. */
function workedMinutes(machine: Machine, catalogue: Catalogue, state: OrderState): number {
  const places = new Map(placesOf(state, machine, catalogue).map((place) => [place.key, place.check.minutes]));
  const checks = state.findings.reduce((sum, finding) => sum + (places.get(finding.key) ?? 0), 0);
  const route = routeOf(machine, state.intake?.lane);
  const steps = Object.entries(state.steps)
    .filter(([, { skipped }]) => skipped === undefined)
    .map(([id]) => stepOf(id, { machine, catalogue, route }));
  const proofs = catalogue.proofs
    .filter((proof) => state.proofs[proof.id])
    .reduce((sum, proof) => sum + proof.minutes, 0);
  return checks + steps.reduce((sum, step) => sum + step.minutes, 0) + proofs;
}

function findingsOf(machine: Machine, catalogue: Catalogue, state: OrderState): readonly RecordFinding[] {
  const places = new Map(placesOf(state, machine, catalogue).map((place) => [place.key, place]));
  return state.findings.map((finding) => {
    const place = places.get(finding.key);
    const answers = place?.check.asks ? catalogue.onsets : (place?.check.results ?? []);
    const label =
      finding.result === NOT_SURE
        ? 'Not sure'
        : (answers.find((answer) => answer.id === finding.result)?.label ?? finding.result);
    const value =
      finding.value === undefined ? {} : { value: finding.value, unit: place?.check.quantity?.unit ?? 'mm' };
    return {
      at: finding.at,
      check: place?.name ?? finding.key,
      result: label.replace(/: enter the depth$/, ''),
      ...value,
    };
  });
}

export function recordOf(machine: Machine, catalogue: Catalogue, events: readonly OrderEvent[]): OrderRecord {
  const state = reduceOrder(machine, catalogue, events);
  const { intake, cause, closed } = state;
  if (!intake) throw new RangeError('The order has not been taken in.');
  const mode = cause && modeById(catalogue, cause.mode);
  const place = (id: string): string => stationById(machine, id)?.name ?? id;
  const material = catalogue.materials.find((item) => item.id === intake.material)?.name ?? 'not known';
  const feed = feedOf(state);
  const worked = closed?.minutes ?? Math.round(workedMinutes(machine, catalogue, state));
  const watch = [closed?.watch, closed?.outcome === 'cured' ? mode?.watch : undefined].filter(
    (text): text is string => !!text,
  );
  return {
    format: 'zealous-tracer/record',
    version: 1,
    number: intake.number,
    machine: machine.name,
    takenIn: intake.at,
    takenInBy: intake.by,
    ...(closed ? { closed: closed.at, outcome: closed.outcome } : {}),
    seen: intake.symptoms.map((id) => catalogue.symptoms.find((item) => item.id === id)?.label ?? id),
    ...(intake.onset
      ? { began: catalogue.onsets.find((item) => item.id === intake.onset)?.label ?? intake.onset }
      : {}),
    filament: [
      material,
      intake.colour,
      intake.weeksLoaded === undefined
        ? undefined
        : `${intake.weeksLoaded} ${intake.weeksLoaded === 1 ? 'week' : 'weeks'} loaded`,
    ]
      .filter(Boolean)
      .join(', '),
    ...(cause && mode ? { cause: { place: place(cause.station), mode: mode.name } } : {}),
    remedies: state.tries.map((item) => ({
      name: remedyById(catalogue, item.remedy)?.name ?? item.remedy,
      outcome: item.outcome,
    })),
    failedRepairs: state.failures.map(
      (item) => `${place(item.station)}: ${modeById(catalogue, item.mode)?.name ?? item.mode}`,
    ),
    clearedToo: state.cured.map(
      (item) =>
        `${place(item.station)}: ${modeById(catalogue, item.mode)?.name ?? item.mode} (${item.remedies.map((id) => remedyById(catalogue, id)?.name ?? id).join(', ')})`,
    ),
    parts: state.parts.map(({ part, station, maker, batch, price }) => ({
      part,
      place: place(station),
      maker,
      batch,
      price,
    })),
    findings: findingsOf(machine, catalogue, state),
    proofs: proofsFor(machine, catalogue, state).map((proof) => ({
      name: proof.name,
      passed: state.proofs[proof.id]?.passed ?? null,
    })),
    ...(feed ? { feed } : {}),
    handsOnMinutes: worked,
    elapsedMinutes: Math.round((state.lastMs - Date.parse(intake.at)) / 60_000),
    overrides: Object.entries(state.steps).flatMap(([id, step]) =>
      step.override ? [`${id}: ${step.override} (${step.by})`] : [],
    ),
    watch,
    notes: [closed?.note, ...state.notes.map((note) => note.text)].filter((text): text is string => !!text),
  };
}

const OUTCOME_WORDS: Record<string, string> = {
  cured: 'cured and proved',
  'not-cured': 'not cured',
  'given-back': 'given back unrepaired',
};
const TRY_WORDS: Record<string, string> = {
  cleared: 'cleared it',
  better: 'brought it further',
  'no-change': 'changed nothing',
  worse: 'made it worse',
};
const line = (label: string, value: string | undefined): string[] => (value ? [`- **${label}:** ${value}`] : []);
const list = (title: string, items: readonly string[]): string[] =>
  items.length ? ['', `## ${title}`, '', ...items.map((item) => `- ${item}`)] : [];
const escape = (text: string): string => text.replace(/([\\`*_{}[\]<>#|])/g, '\\$1');

/** The record as CommonMark. Free text is escaped. */
export function recordMarkdown(record: OrderRecord): string {
  const day = (iso: string | undefined): string | undefined => iso?.slice(0, 16).replace('T', ' ');
  const { feed } = record;
  return [
    `# Work order ${escape(record.number)}: ${escape(record.machine)}`,
    '',
    ...line('Taken in', `${day(record.takenIn)} by ${escape(record.takenInBy)}`),
    ...line(
      'Closed',
      record.closed && `${day(record.closed)}, ${OUTCOME_WORDS[record.outcome ?? ''] ?? record.outcome}`,
    ),
    ...line('Seen', record.seen.join('; ')),
    ...line('Began', record.began),
    ...line('Filament', escape(record.filament)),
    ...line('Cause', record.cause && `${record.cause.mode}, at ${record.cause.place}`),
    ...line('Time', `${record.handsOnMinutes} min of work, ${record.elapsedMinutes} min from take-in to last entry`),
    ...list('Tried before and not the cure', record.failedRepairs),
    ...list('Cleared too; which of them was the cure cannot be told', record.clearedToo),
    ...list(
      'Remedy',
      record.remedies.map((item) => `${item.name}: ${TRY_WORDS[item.outcome] ?? item.outcome}`),
    ),
    ...list(
      'Parts',
      record.parts.map((p) =>
        escape(
          [p.part, p.place, p.maker, p.batch && `batch ${p.batch}`, p.price !== undefined && `price ${p.price}`]
            .filter(Boolean)
            .join(', '),
        ),
      ),
    ),
    ...list(
      'Findings',
      record.findings.map((f) => `${f.check}: ${f.result}${f.value === undefined ? '' : `, ${f.value} ${f.unit}`}`),
    ),
    ...list(
      'Proof',
      record.proofs.map((p) => `${p.name}: ${p.passed === null ? 'not done' : p.passed ? 'passed' : 'failed'}`),
    ),
    ...(feed
      ? [
          '',
          `Feed: ${feed.fedMm} mm of ${feed.askedMm} mm; ${feed.oldStepsPerMm} → ${feed.stepsPerMm.toFixed(2)} ± ${feed.uncertainty.toFixed(2)} steps/mm; ` +
            (feed.significant
              ? 'the change is more than the reading error.'
              : 'the change is within the reading error.'),
        ]
      : []),
    ...list('Done against a hold', record.overrides.map(escape)),
    ...list('To watch', record.watch.map(escape)),
    ...list('Notes', record.notes.map(escape)),
    '',
  ].join('\n');
}
