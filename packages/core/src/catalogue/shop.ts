import { slugOf } from '../text/slug';
import { catalogueFaults } from './faults';
import type { Catalogue } from './types';

export type ChangeKind = Exclude<keyof Catalogue, 'format' | 'version'>;
/** Every kind of record, in the order in which a change of the shop is looked at; a kind left out does not compile. */
export const CHANGE_KINDS = Object.keys({
  modes: true,
  checks: true,
  remedies: true,
  materials: true,
  solvents: true,
  terms: true,
  tools: true,
  cautions: true,
  proofs: true,
  standing: true,
  symptoms: true,
  onsets: true,
  dimensions: true,
  before: true,
} satisfies Record<ChangeKind, true>) as readonly ChangeKind[];
/** The record of a kind. */
export type RecordOf<K extends ChangeKind> = Catalogue[K][number];
export type CatalogueRecord = RecordOf<ChangeKind>;

/**
 * The shop's own changes to the delivered catalogue, kept apart from it: a change holds only the fields that differ, so
 * that a new delivery changes everything else. Published schema: `docs/formats/shop-catalogue.schema.json`.
 */
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

/** Places of a remedy by what version 1 of the catalogue called its needs. */
const PLACES_OF: Readonly<Record<string, readonly string[]>> = { nothing: [], open: ['here'], mouth: ['mouth'] };

/**
 * A change as this version has it: version 1 of the catalogue said in one word what a remedy wants open, and wrote tools out;
 * tools have records now, and one that is not known becomes a tool of the shop's own.
 */
function upToDate(change: ShopChange, delivered: Catalogue): readonly ShopChange[] {
  const { kind, fields } = change;
  if (!fields || (kind !== 'remedies' && kind !== 'checks')) return [change];
  const { needs, tools, ...rest } = fields;
  const made: ShopChange[] = [];
  const ids = Array.isArray(tools)
    ? tools.map((word: unknown) => {
        const text = String(word);
        const known = delivered.tools.find((tool) => tool.id === text || tool.name === text);
        if (known) return known.id;
        // A word with a space is one that was written out; anything else must be an id, and is checked as one.
        if (!/\s|\{/.test(text)) return text;
        made.push({ kind: 'tools', id: slugOf(text, 'tool', 50), op: 'add', fields: { name: text } });
        return slugOf(text, 'tool', 50);
      })
    : undefined;
  const places = kind === 'remedies' && typeof needs === 'string' ? { places: PLACES_OF[needs] ?? [] } : {};
  return [
    ...made,
    {
      ...change,
      fields: {
        ...rest,
        ...places,
        ...(kind === 'checks' && needs !== undefined ? { needs } : {}),
        ...(ids ? { tools: ids } : tools === undefined ? {} : { tools }),
      },
    },
  ];
}

const current = (changes: readonly ShopChange[], delivered: Catalogue): readonly ShopChange[] => {
  const all = changes.flatMap((change) => upToDate(change, delivered));
  return [...new Map(all.map((change) => [`${change.kind}/${change.id}`, change])).values()];
};

/** A file of the shop's changes as this version has it; anything else is handed back as it is. */
export function migrateShop(value: unknown, delivered: Catalogue): unknown {
  const changes = typeof value === 'object' && value !== null && 'changes' in value ? value.changes : undefined;
  if (!Array.isArray(changes) || !changes.every((change) => typeof change === 'object' && change !== null))
    return value;
  return { ...(value as object), changes: current(changes as ShopChange[], delivered) };
}

/** The delivered catalogue with the shop's changes. A change to what is delivered no more has no effect. */
export function withShopChanges(delivered: Catalogue, shop: ShopCatalogue): Catalogue {
  if (shop.changes.length === 0) return delivered;
  const changes = current(shop.changes, delivered);
  return {
    ...delivered,
    ...Object.fromEntries(
      CHANGE_KINDS.map((kind) => [
        kind,
        changed<CatalogueRecord>(
          delivered[kind],
          changes.filter((change) => change.kind === kind),
        ),
      ]),
    ),
  } as Catalogue; // each list is of its own kind
}

/** A catalogue that holds together, and what had to be left out for that. */
export interface SoundCatalogue {
  readonly catalogue: Catalogue;
  readonly leftOut: readonly { readonly change: ShopChange; readonly why: string }[];
}

/**
 * The delivered catalogue with those of the shop's changes that hold together: one that names what is not there any more is
 * left out and said, so that it cannot stop an open order.
 */
export function soundCatalogue(delivered: Catalogue, shop: ShopCatalogue): SoundCatalogue {
  const whole = withShopChanges(delivered, shop);
  if (catalogueFaults(whole).length === 0) return { catalogue: whole, leftOut: [] };
  let kept: readonly ShopChange[] = [];
  let pending = shop.changes;
  let why = new Map<ShopChange, string>();
  // One change may need another: what does not hold alone is tried again once more has been taken in.
  for (let before = -1; before !== kept.length;) {
    before = kept.length;
    why = new Map();
    for (const change of pending) {
      const fault = catalogueFaults(withShopChanges(delivered, { ...shop, changes: [...kept, change] }))[0];
      if (fault) why.set(change, fault.message);
      else kept = [...kept, change];
    }
    pending = pending.filter((change) => why.has(change));
  }
  return {
    catalogue: withShopChanges(delivered, { ...shop, changes: kept }),
    leftOut: [...why].map(([change, text]) => ({ change, why: text })),
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
