import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { FAMILIES, PIECES } from '../path/families';
import type { AccessPart } from '../path/machine';
import { deliveredCatalogue as catalogue } from './index';

/** What happens on real benches and must exist as data: every row of docs/coverage.json names records that are there. */
const root = join(__dirname, '../../../..');
const coverage = JSON.parse(readFileSync(join(root, 'docs/coverage.json'), 'utf8')) as Record<
  string,
  readonly string[]
>;
const machines = readdirSync(join(root, 'demo/machines')).map(
  (name) =>
    JSON.parse(readFileSync(join(root, 'demo/machines', name), 'utf8')) as {
      parts: AccessPart[];
      connectors: { id: string }[];
    },
);
const parts = [
  ...machines.flatMap((m) => m.parts),
  ...PIECES.flatMap((p) => p.parts),
  ...FAMILIES.flatMap((f) => f.parts),
];
const connectors: readonly { readonly id: string }[] = [
  ...machines.flatMap((m) => m.connectors),
  ...PIECES.flatMap((p) => p.connectors ?? []),
];

/** Words of the events themselves: the schema of an order has them. */
const FACTS = ['fasteners', 'proof', 'noticedAt', 'onsets', 'tried', 'converted', 'innocent'];

/** Everything that a record holds under a word: its fields, and ids of actions, offers and outcomes. */
const holdsWord = (record: unknown, word: string): boolean =>
  new RegExp(`"(${word})"`).test(JSON.stringify(record).replace(/"how":"[^"]*"/g, ''));

const found = (row: string): boolean => {
  const [, kind, id, part] = /^(\w+):([^#]+)(?:#(.+))?$/.exec(row) ?? [];
  const lists: Record<string, readonly { readonly id: string }[]> = {
    remedy: [...catalogue.remedies, ...catalogue.standing],
    proof: catalogue.proofs,
    caution: catalogue.cautions,
    tool: catalogue.tools,
    mode: catalogue.modes,
    check: catalogue.checks,
    symptom: catalogue.symptoms,
    onset: catalogue.onsets,
    joint: [...parts, ...connectors],
    // What the core itself refuses for, and fields of what is recorded; see its own tests.
    fact: [...FACTS.map((id) => ({ id })), ...catalogue.before],
  };
  const records = (lists[kind ?? ''] ?? []).filter((record) => record.id === id);
  return records.length > 0 && (part === undefined || records.some((record) => holdsWord(record, part)));
};

test('every row names records that exist', () => {
  for (const [key, rows] of Object.entries(coverage))
    expect([key, rows.length > 0, rows.filter((row) => !found(row))]).toEqual([key, true, []]);
  expect(found('remedy:prayer')).toBe(false);
  expect(found('remedy:rod#prayer')).toBe(false);
});

// The keys counted in the list of what must be sayable, doable and provable.
test('taking in, looking, doing, making ready and proving are covered whole', () => {
  const of = (kind: string): number => Object.keys(coverage).filter((key) => key.startsWith(`${kind}.`)).length;
  expect([of('in'), of('see'), of('do'), of('rig'), of('prove')]).toEqual([14, 39, 33, 18, 24]);
});
