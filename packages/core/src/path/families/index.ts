import type {
  AccessPart,
  Connector,
  Machine,
  MachineHeat,
  Run,
  Station,
  StationAccess,
  StationParams,
} from '../machine';
import families from './families.json';
import pieces from './pieces.json';

/** Stations that come together, with the parts that cover them. Names beginning with `@` stand for what a family has there. */
interface Piece {
  readonly id: string;
  readonly name: string;
  readonly stations: readonly Station[];
  readonly parts: readonly AccessPart[];
  readonly connectors?: readonly Connector[];
}

interface Use {
  readonly use: string;
  /** Added to the ids of stations and parts, where a piece is used more than once. */
  readonly as?: string;
  /** Parameters by station that are not the piece's own. */
  readonly set?: Readonly<Record<string, StationParams>>;
  /** Access by station that is not the piece's own. */
  readonly access?: Readonly<Record<string, StationAccess>>;
  /** The side of a mirrored machine that its parts lie on. */
  readonly side?: string;
}

/** A family of machines as a template. */
export interface Family {
  readonly id: string;
  readonly name: string;
  readonly summary: string;
  readonly strandMm: number;
  readonly heat: MachineHeat;
  /** What `@cover` stands for: parts that come off before anything in the head. */
  readonly cover: readonly string[];
  readonly runs: readonly {
    readonly id: string;
    readonly name: string;
    readonly into?: string;
    readonly pieces: readonly Use[];
  }[];
  readonly parts: readonly AccessPart[];
  readonly connectors?: readonly Connector[];
}

export const FAMILIES = families as unknown as readonly Family[]; // JSON widens literal unions; every family is parsed as a machine in its test
export const PIECES = pieces as unknown as readonly Piece[];

/** Family of a machine that fits none. */
export const OTHER_FAMILY = 'other';

export const familyName = (id: string): string => FAMILIES.find((family) => family.id === id)?.name ?? 'Another kind';

/** A piece with its ids made its own and its covers filled in. */
function placed(piece: Piece, { as, set, access, side }: Use, cover: readonly string[]): Piece {
  const own = new Set(piece.parts.map((part) => part.id));
  const named = (id: string): string => (as === undefined ? id : `${id}-${as}`);
  const ids = (list: readonly string[]): readonly string[] =>
    list.flatMap((id) => (id === '@cover' ? cover : [own.has(id) ? named(id) : id]));
  // A station may name a part of a neighbouring piece of the same path, which carries the same addition.
  const reached = (list: readonly string[], known: ReadonlySet<string>): readonly string[] =>
    list.flatMap((id) => (id === '@cover' ? cover : [known.has(id) && as !== undefined ? named(id) : id]));
  const neighbours = new Set([...own, 'hot-end', 'sock']);
  return {
    ...piece,
    stations: piece.stations.map((station) => {
      const { open, mouth } = access?.[station.id] ?? station.access ?? {};
      return {
        ...station,
        id: named(station.id),
        params: { ...station.params, ...set?.[station.id] },
        access: {
          ...(open ? { open: reached(open, neighbours) } : {}),
          ...(mouth ? { mouth: reached(mouth, neighbours) } : {}),
        },
      };
    }),
    parts: piece.parts.map((part) => ({
      ...part,
      ...(side === undefined ? {} : { side }),
      id: named(part.id),
      ...(part.after ? { after: ids(part.after) } : {}),
      ...(part.unplug ? { unplug: part.unplug.map(named) } : {}),
      ...(part.ways
        ? {
            ways: part.ways.map((way) => ({
              ...way,
              ...(way.after ? { after: ids(way.after) } : {}),
              ...(way.unplug ? { unplug: way.unplug.map(named) } : {}),
            })),
          }
        : {}),
    })),
    connectors: (piece.connectors ?? []).map((connector) => ({
      ...connector,
      id: named(connector.id),
      ...(connector.of === undefined ? {} : { of: named(connector.of) }),
    })),
  };
}

/**
 * A machine of a family, ready to be made one's own.
 *
 * @throws RangeError when there is no such family or it names a piece that there is not.
 */
export function machineOfFamily(familyId: string, id: string, name: string): Machine {
  const family = FAMILIES.find((item) => item.id === familyId);
  if (!family) throw new RangeError(`There is no family "${familyId}".`);
  const parts: AccessPart[] = [...family.parts];
  const connectors: Connector[] = [...(family.connectors ?? [])];
  const runs = family.runs.map((run): Run => {
    const stations = run.pieces.flatMap((use) => {
      const piece = PIECES.find((item) => item.id === use.use);
      if (!piece) throw new RangeError(`There is no piece "${use.use}".`);
      const made = placed(piece, use, family.cover);
      parts.push(...made.parts);
      connectors.push(...(made.connectors ?? []));
      return made.stations;
    });
    return { id: run.id, name: run.name, ...(run.into ? { into: run.into } : {}), stations };
  });
  const { summary, strandMm, heat } = family;
  return {
    format: 'zealous-tracer/machine',
    version: 3,
    id,
    name,
    family: familyId,
    summary,
    strandMm,
    heat,
    runs,
    parts,
    connectors,
  };
}
