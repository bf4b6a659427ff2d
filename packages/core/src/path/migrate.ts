import { FAMILIES, OTHER_FAMILY } from './families';
import { MACHINE_VERSION } from './machine';

type Loose = Readonly<Record<string, unknown>>;
const isObject = (value: unknown): value is Loose =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Version 1 said the family in free words. What fits a template by its words becomes that; the words are kept in the summary. */
function familyFromWords(machine: Loose): Loose {
  const words = typeof machine['family'] === 'string' ? machine['family'] : '';
  const guess =
    FAMILIES.find((family) => family.id === words || family.name.toLowerCase() === words.toLowerCase()) ??
    FAMILIES.find(({ id }) => (/hub/i.test(words) ? id === 'hub-head' : /bowden/i.test(words) && id === 'bowden-open'));
  const summary = typeof machine['summary'] === 'string' ? machine['summary'] : '';
  return {
    ...machine,
    version: 2,
    family: guess?.id ?? OTHER_FAMILY,
    summary: guess || words === '' || summary.includes(words) ? summary : `${summary} (${words})`.trim().slice(0, 500),
  };
}

const list = (value: unknown): readonly Loose[] => (Array.isArray(value) ? value.filter(isObject) : []);
const words = (value: unknown): string => (typeof value === 'string' ? value.toLowerCase() : '');

/** Kinds of plug by the words in which version 2 noted them beside a fastener. */
const PLUG_WORDS: readonly (readonly [RegExp, string, string])[] = [
  [/heater/, 'heater', 'Heater'],
  [/thermistor|temperature/, 'thermistor', 'Thermistor'],
  [/\bfan/, 'hot-end-fan', 'Hot-end fan'],
  [/motor/, 'motor', 'Motor'],
  [/sensor/, 'sensor', 'Sensor'],
];

/** The plugs that version 2 kept among a part's fasteners. */
function plugsOf(part: Loose, hotEnd: boolean): readonly Loose[] {
  const plug = list(part['fasteners']).find((fastener) => fastener['what'] === 'plug');
  if (!plug) return [];
  const id = String(part['id']);
  const said = `${words(plug['note'])} ${words(part['off'])} ${words(part['name'])}`;
  const kinds = PLUG_WORDS.filter(([sign]) => sign.test(said)).map(([, kind, name]) =>
    hotEnd && kind === 'sensor' ? (['thermistor', 'Thermistor'] as const) : ([kind, name] as const),
  );
  const count = typeof plug['count'] === 'number' ? plug['count'] : 1;
  return Array.from({ length: count }, (_, i) => {
    const [kind, name] = kinds[i] ?? (['data', `Plug ${i + 1}`] as const);
    return {
      id: `${id}-${kind}${kinds[i] ? '' : i + 1}`,
      name: `${name} of: ${String(part['name'])}`.slice(0, 80),
      kind,
      of: id,
    };
  });
}

/** PTFE on the heated stretch is given minutes only: so many, where version 2 named a short limit without them (chosen). */
const SHORT_MINUTES = 10;

/**
 * Version 2 knew no connectors, and not which part carries the heater or parts the path. Both are read from its access data:
 * the last part off ahead of the heat break carries the heater; what is off for the inside of a tube, coupler, port or hub
 * parts the path; a plug among the fasteners is a connector, and what has none hangs on its cables.
 */
function connectorsFromParts(machine: Loose): Loose {
  // One that names its connectors only calls itself older than it is.
  if (Array.isArray(machine['connectors'])) return { ...machine, version: 3 };
  const stations = list(machine['runs']).flatMap((run) => list(run['stations']));
  const opens = (kinds: readonly string[]): ReadonlySet<string> =>
    new Set(
      stations
        .filter((station) => kinds.includes(String(station['kind'])))
        .flatMap(({ access }) => {
          const open = isObject(access) && Array.isArray(access['open']) ? (access['open'] as unknown[]) : [];
          return open.length ? [String(open.at(-1))] : [];
        }),
    );
  const breaks = new Set(
    stations
      .filter((station) => station['kind'] === 'heat-break')
      .flatMap(({ access }) => (isObject(access) && Array.isArray(access['open']) ? access['open'].map(String) : [])),
  );
  const tubes = opens(['tube', 'coupler', 'hub-port', 'hub']);
  const tubeEnd = (part: Loose): boolean => list(part['fasteners']).some(({ what }) => words(what).includes('collet'));
  const hotEnd = (part: Loose): boolean =>
    breaks.has(String(part['id'])) && !tubeEnd(part) && /hot end/.test(words(part['name']));
  const connectors: Loose[] = [];
  const parts = list(machine['parts']).map((part) => {
    const heats = hotEnd(part);
    const plugs = plugsOf(part, heats);
    connectors.push(...plugs);
    if (heats && plugs.length === 0)
      connectors.push(
        { id: `${String(part['id'])}-heater`, name: 'Heater', kind: 'heater', of: part['id'] },
        { id: `${String(part['id'])}-thermistor`, name: 'Thermistor', kind: 'thermistor', of: part['id'] },
      );
    const wired = /on its (wires|cable)/.test(words(part['off']));
    return {
      ...part,
      ...(plugs.length && part['power'] === 'off' ? { unplug: plugs.map(({ id }) => id) } : {}),
      ...(wired ? { parked: true } : {}),
      ...(heats ? { heats: true, hot: true } : {}),
      ...(/sock/.test(words(part['name'])) ? { hot: true } : {}),
      ...(heats || tubeEnd(part) || tubes.has(String(part['id'])) ? { severs: true } : {}),
    };
  });
  const heat = isObject(machine['heat']) ? machine['heat'] : {};
  return {
    ...machine,
    version: 3,
    parts,
    connectors,
    heat: heat['shortLimitC'] === undefined ? heat : { shortMinutes: SHORT_MINUTES, ...heat },
  };
}

/** From each older version to the next. */
const STEPS: Readonly<Record<number, (machine: Loose) => Loose>> = { 1: familyFromWords, 2: connectorsFromParts };

/** A machine of an older version brought to the present one; anything else is handed back as it is. */
export function migrateMachine(value: unknown): unknown {
  let machine = value;
  while (isObject(machine) && typeof machine['version'] === 'number' && machine['version'] < MACHINE_VERSION) {
    const step = STEPS[machine['version']];
    if (!step) return machine;
    machine = step(machine);
  }
  return machine;
}
