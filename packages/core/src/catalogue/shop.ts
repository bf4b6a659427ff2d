import type { Catalogue, Check, FailureMode, Material, Remedy, Solvent, Terms } from './types';

/**
 * The shop's own changes to the delivered catalogue, kept apart from it: a change holds only the fields that differ, so
 * that a new delivery changes everything else. Published schema: `docs/formats/shop-catalogue.schema.json`.
 */
export const CHANGE_KINDS = ['modes', 'checks', 'remedies', 'materials', 'solvents', 'terms'] as const;
export type ChangeKind = (typeof CHANGE_KINDS)[number];
interface Records {
  modes: FailureMode;
  checks: Check;
  remedies: Remedy;
  materials: Material;
  solvents: Solvent;
  terms: Terms;
}
export type CatalogueRecord = Records[ChangeKind];

export interface ShopChange {
  readonly kind: ChangeKind;
  readonly id: string;
  readonly op: 'add' | 'change' | 'retire';
  /** All fields of what is added, the differing ones of what is changed. */
  readonly fields?: Readonly<Record<string, unknown>>;
  readonly note?: string;
  readonly by?: string;
}

export interface ShopCatalogue {
  readonly format: 'zealous-tracer/shop-catalogue';
  readonly version: 1;
  readonly changes: readonly ShopChange[];
}

export const noShopChanges: ShopCatalogue = { format: 'zealous-tracer/shop-catalogue', version: 1, changes: [] };

function changed<T extends { readonly id: string }>(list: readonly T[], changes: readonly ShopChange[]): readonly T[] {
  const byId = new Map(changes.map((change) => [change.id, change]));
  const kept = list.map((item): T => {
    const change = byId.get(item.id);
    if (!change) return item;
    return change.op === 'retire' ? { ...item, retired: true } : { ...item, ...change.fields, id: item.id };
  });
  const known = new Set(list.map((item) => item.id));
  const added = changes.filter((change) => change.op === 'add' && !known.has(change.id));
  return [...kept, ...added.map((change) => ({ ...change.fields, id: change.id }) as unknown as T)];
}

/** The delivered catalogue with the shop's changes. A change to what is delivered no more has no effect. */
export function withShopChanges(delivered: Catalogue, shop: ShopCatalogue): Catalogue {
  if (shop.changes.length === 0) return delivered;
  const of = (kind: ChangeKind) => shop.changes.filter((change) => change.kind === kind);
  return {
    ...delivered,
    modes: changed(delivered.modes, of('modes')),
    checks: changed(delivered.checks, of('checks')),
    remedies: changed(delivered.remedies, of('remedies')),
    materials: changed(delivered.materials, of('materials')),
    solvents: changed(delivered.solvents, of('solvents')),
    terms: changed(delivered.terms, of('terms')),
  };
}

/** The change that makes one record out of another: its differing fields. Undefined when there is none. */
export function changeBetween(
  kind: ChangeKind,
  delivered: CatalogueRecord | undefined,
  wanted: CatalogueRecord,
): ShopChange | undefined {
  if (!delivered) return { kind, id: wanted.id, op: 'add', fields: { ...wanted } };
  const before = delivered as unknown as Readonly<Record<string, unknown>>;
  const fields = Object.fromEntries(
    Object.entries(wanted).filter(([key, value]) => JSON.stringify(value) !== JSON.stringify(before[key])),
  );
  return Object.keys(fields).length === 0 ? undefined : { kind, id: wanted.id, op: 'change', fields };
}

export interface CatalogueFault {
  readonly path: string;
  readonly message: string;
}

/** What the schema cannot say: references that lead nowhere, effects that are more than certain, a check that sees nothing. */
export function catalogueFaults(catalogue: Catalogue): readonly CatalogueFault[] {
  const faults: CatalogueFault[] = [];
  const say = (path: string, message: string): void => void faults.push({ path, message });
  const values = new Map(catalogue.dimensions.map((dimension) => [dimension.id, new Set(dimension.values)]));
  const known = (path: string, dimension: string, list: readonly string[]): void => {
    const of = values.get(dimension);
    if (!of) say(`${path}/${dimension}`, `there is no dimension "${dimension}"`);
    else
      list
        .filter((value) => !of.has(value))
        .forEach((value) => say(`${path}/${dimension}`, `"${dimension}" has no value "${value}"`));
  };
  const twice = (kind: string, list: readonly { readonly id: string }[]): void =>
    list.forEach(({ id }, i) => {
      if (list.findIndex((other) => other.id === id) < i) say(`/${kind}/${i}/id`, `the id "${id}" is used twice`);
    });
  twice('modes', catalogue.modes);
  twice('checks', catalogue.checks);
  twice('remedies', catalogue.remedies);
  twice('materials', catalogue.materials);
  twice('solvents', catalogue.solvents);
  catalogue.materials.forEach(({ solvents = [] }, m) =>
    solvents.forEach((id, i) => {
      if (!catalogue.solvents.some((solvent) => solvent.id === id))
        say(`/materials/${m}/solvents/${i}`, `there is no solvent "${id}"`);
    }),
  );
  catalogue.modes.forEach((mode, m) => {
    const path = `/modes/${m}`;
    for (const [dimension, shows] of Object.entries(mode.shows)) {
      known(`${path}/shows`, dimension, Object.keys(shows));
      if (Object.values(shows).reduce((sum, p) => sum + p, 0) > 1.0001)
        say(`${path}/shows/${dimension}`, 'the chances of its values add up to more than 1');
    }
    for (const id of mode.remedies)
      if (!catalogue.remedies.some((remedy) => remedy.id === id)) say(`${path}/remedies`, `there is no remedy "${id}"`);
    for (const id of Object.keys(mode.onset ?? {}))
      if (!catalogue.onsets.some((onset) => onset.id === id)) say(`${path}/onset`, `there is no onset "${id}"`);
    for (const id of Object.keys(mode.together ?? {}))
      if (!catalogue.modes.some((other) => other.id === id)) say(`${path}/together`, `there is no mode "${id}"`);
  });
  catalogue.remedies.forEach((remedy, r) =>
    remedy.outcomes?.forEach(({ finding }, o) => {
      if (!finding) return;
      const check = catalogue.checks.find(({ id }) => id === finding.check);
      const path = `/remedies/${r}/outcomes/${o}/finding`;
      if (!check) say(`${path}/check`, `there is no check "${finding.check}"`);
      else if (!check.results.some(({ id }) => id === finding.result))
        say(`${path}/result`, `"${finding.check}" has no result "${finding.result}"`);
    }),
  );
  catalogue.checks.forEach((check, c) => {
    const path = `/checks/${c}`;
    check.results.forEach((result, r) => {
      for (const [dimension, list] of Object.entries(result.when ?? {}))
        known(`${path}/results/${r}/when`, dimension, list);
    });
    if (!check.asks && check.results.length < (check.quantity ? 1 : 2))
      say(`${path}/results`, 'a check needs an abnormal and a normal result');
    const { quantity } = check;
    if (quantity && !(quantity.min < quantity.max))
      say(`${path}/quantity`, 'the smallest value must lie below the largest');
  });
  return faults;
}
