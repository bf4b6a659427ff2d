import { hourlyRateOf, modeById, remedyById } from '../catalogue/index';
import type { Catalogue } from '../catalogue/types';
import { stationById, type Machine } from '../path/machine';
import { calibrateFeed, type FeedCalibration } from '../physics/feed';
import { fitFeedCurve, type FeedCurve } from '../physics/feedCurve';
import { routeOf } from '../path/route';
import { confounded } from '../plan/confounded';
import { leftOffOf } from '../order/leftOff';
import { stepOf } from '../plan/steps';
import { benchAt } from '../order/bench';
import type { EventBodies, OrderEvent } from '../order/events';
import { foundIn } from '../explain/foundWords';
import { proofsFor } from '../order/proofs';
import { placesOf, reduceOrder } from '../order/reduce';
import type { OrderState } from '../order/state';

export interface RecordFinding {
  readonly id: string;
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
  /** Who did it, for what is printed. */
  readonly shop?: { readonly name?: string; readonly address?: string };
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
  /** Pieces of the filament that were tried in a solvent. */
  readonly solvents: readonly string[];
  readonly parts: readonly {
    readonly part: string;
    readonly place: string;
    /** What was fitted, of the remedy's offers. */
    readonly fitted?: string;
    readonly maker?: string;
    readonly batch?: string;
    readonly price?: number;
    readonly genuine?: string;
    readonly hours?: number;
    readonly oldHours?: number;
  }[];
  readonly pictures: readonly { readonly photoId: string; readonly about: string; readonly caption: string }[];
  /** Work at the hourly rate, and parts. */
  readonly charged: {
    readonly currency?: string;
    readonly hourlyRate: number;
    readonly work: number;
    readonly parts: number;
    readonly total: number;
  };
  /** Which change was the cure, when several were made at once. */
  readonly confounded?: { readonly changes: readonly string[]; readonly tells?: string };
  /** Not put back, with the reason. */
  readonly leftOut: readonly string[];
  readonly watchOn?: string;
  readonly findings: readonly RecordFinding[];
  readonly proofs: readonly { readonly name: string; readonly passed: boolean | null; readonly note?: string }[];
  readonly feed?: FeedCalibration & {
    readonly fedMm: number;
    readonly askedMm: number;
    readonly oldStepsPerMm: number;
  };
  /** Speed of the strand at which 5 % is lost, as far as it was measured. */
  readonly feedCurve?: FeedCurve;
  readonly handsOnMinutes: number;
  readonly elapsedMinutes: number;
  readonly overrides: readonly string[];
  readonly watch: readonly string[];
  readonly notes: readonly string[];
}

/** Fed length before and after is the measurement of the repair; the feed proof of the order, calibrated. */
function feedOf(catalogue: Catalogue, state: OrderState) {
  const feed = catalogue.proofs.flatMap(({ id, quantity }) => (quantity ? (state.proofs[id] ?? []) : []))[0];
  if (!feed?.fedMm || !feed.askedMm || !feed.oldStepsPerMm) return undefined;
  const { askedMm, fedMm, oldStepsPerMm } = feed;
  return { ...calibrateFeed(askedMm, fedMm, oldStepsPerMm, feed.readingMm ?? 0.5), askedMm, fedMm, oldStepsPerMm };
}

/** The fall-off of the feed; too few speeds say nothing. */
function curveOf(machine: Machine, { curve }: OrderState): FeedCurve | undefined {
  if (!curve || new Set(curve.map(({ mmPerS }) => mmPerS)).size < 4) return undefined;
  return fitFeedCurve(curve, machine.strandMm);
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

/** What a finding was, in the technician's own words. */
const saidOf = ({ notes }: OrderState, finding: string): readonly string[] =>
  notes.flatMap(({ findingId, text }) => (findingId === finding ? [text] : []));

function findingsOf(machine: Machine, catalogue: Catalogue, state: OrderState): readonly RecordFinding[] {
  const places = new Map(placesOf(state, machine, catalogue).map((place) => [place.key, place]));
  return state.findings.map((finding) => {
    const place = places.get(finding.key);
    const { words, ...value } = foundIn(place?.check, catalogue, finding);
    return {
      id: finding.id,
      at: finding.at,
      check: place?.name ?? finding.key,
      result: `${[words, ...saidOf(state, finding.id)].join(': ')}${finding.innocent ? ' (real, but not the cause)' : ''}`,
      ...value,
    };
  });
}

/** Every beginning that was named. */
/** From here on the taking-in asks no finer. */
const LONG_WEEKS = 5;
const loadedWords = (weeks: number): string =>
  weeks === 0
    ? 'loaded fresh'
    : weeks >= LONG_WEEKS
      ? 'loaded for more than 4 weeks'
      : `loaded for about ${weeks} ${weeks === 1 ? 'week' : 'weeks'}`;

const onsetsOf = ({ onset, onsets = [] }: EventBodies['taken-in']): readonly string[] => [
  ...new Set([...(onset === undefined ? [] : [onset]), ...onsets]),
];

function fittedWords(catalogue: Catalogue, part: string, offer: string | undefined): { readonly fitted?: string } {
  const offers = catalogue.remedies.flatMap((remedy) => (remedy.replaces === part ? (remedy.offers ?? []) : []));
  const fitted = offers.find(({ id }) => id === offer)?.name;
  return fitted === undefined ? {} : { fitted };
}

export function recordOf(machine: Machine, catalogue: Catalogue, events: readonly OrderEvent[]): OrderRecord {
  const state = reduceOrder(machine, catalogue, events);
  const { intake, cause, closed } = state;
  if (!intake) throw new RangeError('The order has not been taken in.');
  const mode = cause && modeById(catalogue, cause.mode);
  const place = (id: string): string => stationById(machine, id)?.name ?? id;
  const material = catalogue.materials.find((item) => item.id === intake.material)?.name ?? 'not known';
  const began = onsetsOf(intake);
  const feed = feedOf(catalogue, state);
  const curve = curveOf(machine, state);
  const worked = closed?.minutes ?? Math.round(workedMinutes(machine, catalogue, state));
  const rate = closed?.hourlyRate ?? hourlyRateOf(catalogue);
  const { currency, shop, address } = catalogue.terms[0] ?? {};
  const charge = Math.round((worked / 60) * rate * 100) / 100;
  const spent = state.parts.reduce((sum, part) => sum + (part.price ?? 0), 0);
  const mixed = confounded(machine, catalogue, state, benchAt(machine, state, state.lastMs));
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
    ...(began.length > 0
      ? { began: began.map((id) => catalogue.onsets.find((item) => item.id === id)?.label ?? id).join('; ') }
      : {}),
    filament: [material, intake.colour, intake.weeksLoaded === undefined ? undefined : loadedWords(intake.weeksLoaded)]
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
    solvents: Object.entries(state.solvents).map(
      ([id, softened]) =>
        `A piece in ${catalogue.solvents.find((item) => item.id === id)?.name ?? id}: ${softened ? 'softened' : 'did not soften'}`,
    ),
    parts: state.parts.map(({ part, station, offer, maker, batch, price, genuine, hours, oldHours }) => ({
      part,
      place: place(station),
      ...fittedWords(catalogue, part, offer),
      maker,
      batch,
      price,
      genuine,
      hours,
      oldHours,
    })),
    pictures: state.photos.map(({ photoId, about, caption, markers }) => ({
      photoId,
      about,
      caption: [caption, ...markers.filter(({ label }) => !label.startsWith('#')).map(({ label }) => label)]
        .filter(Boolean)
        .join('; '),
    })),
    charged: {
      ...(currency ? { currency } : {}),
      hourlyRate: rate,
      work: charge,
      parts: spent,
      total: charge + spent,
    },
    ...(shop || address ? { shop: { ...(shop ? { name: shop } : {}), ...(address ? { address } : {}) } } : {}),
    ...(mixed
      ? {
          confounded: {
            changes: mixed.changes.map(({ text }) => text),
            ...(mixed.tells
              ? {
                  tells: `Put back ${mixed.tells.text}, about ${Math.round(mixed.tells.reversalMin ?? 0)} min: if the fault returns, it was that.`,
                }
              : {}),
          },
        }
      : {}),
    leftOut: leftOutOf(machine, state),
    ...(closed?.watchOn ? { watchOn: closed.watchOn } : {}),
    findings: findingsOf(machine, catalogue, state),
    proofs: proofsFor(machine, catalogue, state).map((proof) => ({
      name: proof.name,
      passed: state.proofs[proof.id]?.passed ?? null,
    })),
    ...(feed ? { feed } : {}),
    ...(curve ? { feedCurve: curve } : {}),
    handsOnMinutes: worked,
    elapsedMinutes: Math.round((state.lastMs - Date.parse(intake.at)) / 60_000),
    overrides: Object.entries(state.steps).flatMap(([id, step]) =>
      step.override ? [`${id}: ${step.override} (${step.by})`] : [],
    ),
    watch,
    // What was said of a finding stands with it, as long as it is there.
    notes: [
      closed?.note,
      ...state.notes.flatMap(({ findingId, text }) =>
        state.findings.some(({ id }) => id === findingId) ? [] : [text],
      ),
    ].filter((text): text is string => !!text),
  };
}

/** Parts and screws that were not put back, with the reason. */
function leftOutOf(machine: Machine, state: OrderState): readonly string[] {
  const name = (id: string): string => machine.parts.find((part) => part.id === id)?.name ?? id;
  return [
    ...Object.entries(leftOffOf(state)).map(([id, why]) => `${name(id)}: ${why}`),
    ...Object.entries(state.fasteners).flatMap(([key, pins]) =>
      Object.values(pins).flatMap(({ now, why }) =>
        now === 'left' ? [`a fastener of ${name(key.split('/')[0] ?? key)}: ${why ?? 'no reason given'}`] : [],
      ),
    ),
  ];
}
