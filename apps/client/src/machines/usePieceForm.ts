import { AboutMachine, MachinePlugs, PartPiece, StationPiece } from '@zealous/contracts/pieces';
import { faultsOf } from '@zealous/contracts/catalogue';
import type { Loose, RecordField } from '../ui/form/fields';
import { limited } from '../ui/form/limited';
import { useRecordForm, type RecordOfForm } from '../ui/form/useRecordForm';

/** The contract class of each piece of a machine. */
const CLASSES = { about: AboutMachine, plugs: MachinePlugs, station: StationPiece, part: PartPiece } as const;
type PieceKind = keyof typeof CLASSES;

/** Fields with the bounds and lengths of the piece's class. */
export const fieldsOfPiece = (kind: PieceKind, fields: readonly RecordField[]): readonly RecordField[] =>
  limited(fields, CLASSES[kind]);

const asRecord = (value: unknown): Loose => (typeof value === 'object' && value !== null ? (value as Loose) : {});

/** The value with what stands at a place put back to what stood there, and taken out where nothing did. */
function putBack(now: unknown, was: unknown, [name, ...below]: readonly string[]): unknown {
  if (name === undefined) return was;
  const old = asRecord(was)[name];
  const next = below.length > 0 ? putBack(asRecord(now)[name], old, below) : old;
  if (Array.isArray(now)) {
    const row = Number(name);
    return now.flatMap((item: unknown, i) => (i !== row ? [item] : next === undefined ? [] : [next]));
  }
  const { [name]: _now, ...rest } = asRecord(now);
  return next === undefined ? rest : { ...rest, [name]: next };
}

/** No fault of a piece lies deeper than a field of a row of another way. */
const DEEPEST = 6;

const placeOf = (pointer: string): readonly string[] => pointer.split('/').slice(1);

/**
 * What of a piece fits, as it is typed: where it does not, it stays as it was. All of it, unchanged, where all fits.
 *
 * @param was a piece that fits
 */
export function fitting(kind: PieceKind, typed: Loose, was: Loose): Loose {
  let now = typed;
  // First the field itself, then the row or part that it stands in.
  for (let up = 0; up < DEEPEST; up++) {
    const faults = faultsOf(CLASSES[kind], now);
    if (faults.length === 0) return now;
    // Last rows first: one that is taken out does not move those before it.
    for (const { path } of [...faults].reverse()) {
      const place = placeOf(path);
      now = asRecord(putBack(now, was, place.slice(0, Math.max(1, place.length - up))));
    }
  }
  return was;
}

export interface PieceFormOptions {
  readonly kind: PieceKind;
  readonly fields: readonly RecordField[];
  readonly piece: object;
  /** What was typed and does not fit, from before. */
  readonly typed: Loose | undefined;
  /** What fits, and what was typed where that is something else. */
  readonly onChange: (fits: Loose, typed: Loose | undefined) => void;
}

/** The form of one piece of a machine: what fits is in the machine at once, what does not waits in the form with its fault. */
export function usePieceForm({ kind, fields, piece, typed, onChange }: PieceFormOptions): RecordOfForm {
  const was = piece as Loose;
  return useRecordForm({
    fields,
    record: typed ?? was,
    judge: (record) => faultsOf(CLASSES[kind], record),
    onChange: (record) => {
      const fits = fitting(kind, record, was);
      onChange(fits, fits === record ? undefined : record);
    },
  });
}
