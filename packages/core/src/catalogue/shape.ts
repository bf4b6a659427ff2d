import type {
  Action,
  Before,
  Caution,
  Check,
  Dimension,
  FailureMode,
  Material,
  Offer,
  Onset,
  Proof,
  Remedy,
  Solvent,
  StandingAction,
  Symptom,
  Terms,
  Tool,
} from './types';

type Keys<T> = Readonly<Record<keyof T, true>>;

/**
 * Every field of every kind of record, by name: a field that is added to a type or taken from it does not compile until it
 * stands here, and what stands here is compared with the published schema and with the form by tests.
 */
const action: Keys<Action> = {
  id: true,
  name: true,
  how: true,
  stop: true,
  minutes: true,
  waitMinutes: true,
  heat: true,
  target: true,
  power: true,
  places: true,
  when: true,
  strand: true,
  push: true,
  exit: true,
  hands: true,
  does: true,
  tools: true,
  cautions: true,
  once: true,
};
const offer: Keys<Offer> = {
  id: true,
  name: true,
  kind: true,
  when: true,
  price: true,
  minutes: true,
  lifeHours: true,
  lifeHoursAbrasive: true,
  flaw: true,
  origin: true,
};
const modes: Keys<FailureMode> = {
  id: true,
  name: true,
  where: true,
  weight: true,
  only: true,
  raised: true,
  onset: true,
  shows: true,
  reads: true,
  sits: true,
  remedies: true,
  watch: true,
  together: true,
  retired: true,
};
const checks: Keys<Check> = {
  id: true,
  name: true,
  how: true,
  minutes: true,
  heat: true,
  power: true,
  at: true,
  kinds: true,
  only: true,
  reach: true,
  needs: true,
  swap: true,
  severalLanes: true,
  asks: true,
  results: true,
  quantity: true,
  miss: true,
  falseAlarm: true,
  risk: true,
  cautions: true,
  tools: true,
  source: true,
  drawsOut: true,
  retired: true,
};
const remedies: Keys<Remedy> = {
  ...action,
  cures: true,
  kinds: true,
  boreAtLeastMm: true,
  boreBelowMm: true,
  materials: true,
  leavesFilament: true,
  needsSolvent: true,
  replaces: true,
  price: true,
  offers: true,
  tries: true,
  risk: true,
  measures: true,
  outcomes: true,
  takesOut: true,
  actions: true,
  origin: true,
  retired: true,
};
const materials: Keys<Material> = {
  id: true,
  name: true,
  printC: true,
  unclogC: true,
  pullC: true,
  glassC: true,
  printRangeC: true,
  dryC: true,
  dryHours: true,
  solvents: true,
  traits: true,
  assumed: true,
  origin: true,
};
const solvents: Keys<Solvent> = {
  id: true,
  name: true,
  flashC: true,
  lowerLimitPct: true,
  exposurePpm: true,
  soakHours: true,
  care: true,
  origin: true,
};
const terms: Keys<Terms> = { id: true, name: true, hourlyRate: true };
const tools: Keys<Tool> = { id: true, name: true, hazard: true, sized: true, consumable: true };
const cautions: Keys<Caution> = { id: true, sign: true, shape: true, line: true, more: true, marks: true };
const proofs: Keys<Proof> = {
  id: true,
  name: true,
  how: true,
  minutes: true,
  heat: true,
  power: true,
  cautions: true,
  remedies: true,
  modes: true,
  when: true,
  kinds: true,
  worked: true,
  touched: true,
  onsets: true,
  why: true,
  form: true,
  quantity: true,
  fails: true,
  miss: true,
};
const standing: Keys<StandingAction> = { ...action, purpose: true };
const symptoms: Keys<Symptom> = { id: true, label: true, when: true, miss: true, falseAlarm: true };
const onsets: Keys<Onset> = { id: true, label: true, inPrint: true };
const dimensions: Keys<Dimension> = { id: true, name: true, values: true };
const before: Keys<Before> = { id: true, label: true, finding: true, tried: true };

const names = (keys: Readonly<Record<string, true>>): readonly string[] => Object.keys(keys);

export const RECORD_FIELDS = {
  modes: names(modes),
  checks: names(checks),
  remedies: names(remedies),
  materials: names(materials),
  solvents: names(solvents),
  terms: names(terms),
  tools: names(tools),
  cautions: names(cautions),
  proofs: names(proofs),
  standing: names(standing),
  symptoms: names(symptoms),
  onsets: names(onsets),
  dimensions: names(dimensions),
  before: names(before),
} as const;
export const ACTION_FIELDS = names(action);
export const OFFER_FIELDS = names(offer);
