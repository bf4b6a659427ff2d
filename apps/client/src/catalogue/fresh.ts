import type { CatalogueRecord, ChangeKind } from '@zealous/core';
import type { Loose } from '../ui/form/fields';

/** What a record is called. */
export const titleOf = (record: CatalogueRecord): string =>
  'name' in record && record.name !== undefined
    ? record.name
    : 'label' in record
      ? record.label
      : 'line' in record
        ? record.line
        : record.id;

/** A new record to begin from; valid but for what only the person knows. */
export function freshRecord(kind: ChangeKind, id: string): Loose {
  if (kind === 'modes')
    return {
      id,
      name: 'New failure mode',
      weight: 2,
      where: { nozzle: 1 },
      shows: {},
      onset: {},
      remedies: ['renew-part'],
    };
  if (kind === 'checks')
    return {
      id,
      name: 'New check of {station}',
      how: 'What to do, in two lines.',
      minutes: 2,
      heat: 'any',
      power: 'any',
      at: 'each',
      kinds: ['nozzle'],
      reach: 'station',
      needs: 'nothing',
      results: [
        { id: 'found', label: 'Found', when: { visible: ['worn'] } },
        { id: 'sound', label: 'Sound' },
      ],
      miss: 0.1,
      falseAlarm: 0.05,
    };
  if (kind === 'materials')
    return { id, name: 'New filament', printC: 210, unclogC: 240, pullC: 90, traits: [], origin: 'this shop' };
  if (kind === 'solvents')
    return {
      id,
      name: 'New solvent',
      flashC: 0,
      lowerLimitPct: 2,
      exposurePpm: 200,
      soakHours: [24, 48],
      care: 'As its safety data sheet says.',
      origin: 'its safety data sheet',
    };
  if (kind === 'tools') return { id, name: 'New tool' };
  if (kind === 'cautions')
    return {
      id,
      line: 'What may happen, and what to do.',
      more: 'Why.',
      sign: 'W001 general warning',
      shape: 'triangle',
    };
  if (kind === 'proofs')
    return { id, name: 'New proof', how: 'How it is shown.', minutes: 2, heat: 'any', power: 'any', miss: 0.1 };
  // Whoever was taken in before was not asked for it.
  if (kind === 'symptoms') {
    const since = new Date().toISOString().slice(0, 10);
    return { id, label: 'New symptom', when: { strand: ['thin'] }, miss: 0.3, falseAlarm: 0.05, since };
  }
  if (kind === 'onsets') return { id, label: 'New beginning' };
  if (kind === 'dimensions') return { id, name: 'new dimension', values: ['normal', 'odd'] };
  if (kind === 'before') return { id, label: 'Something that was done' };
  return {
    id,
    name: 'New remedy',
    how: 'What to do.',
    minutes: 5,
    heat: 'cold',
    power: 'off',
    places: ['here'],
    cures: 0.7,
    origin: 'this shop',
  };
}
