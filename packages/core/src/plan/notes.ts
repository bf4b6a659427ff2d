import { fastenerMap } from '../bench/fastenerMap';
import type { OpenPart } from '../bench/closure';
import type { Catalogue } from '../catalogue/types';
import { allStations, type Fastener, type Machine } from '../path/machine';

const counted = ({ count, what, drive, hole }: Fastener): string =>
  `${count} × ${what}${drive ? `, ${drive}` : ''}${hole ? ` (${hole})` : ''}`;

/** Rows of a part's fasteners that are alike on the mat: their letters and lengths. */
const lookAlikes = (part: OpenPart): readonly string[] => {
  const groups = fastenerMap(part.fasteners ?? []).filter((group) => group.lookAlikes.length > 0);
  return groups.length === 0
    ? []
    : [
        `Almost the same length: ${groups.map(({ letter, fastener }) => `${letter} is ${fastener.lengthMm} mm`).join(', ')}. Keep them apart.`,
      ];
};

const lossWords = (part: OpenPart): readonly string[] =>
  (part.loses ?? []).map(({ name, note }) => `May drop out: ${name}${note ? `; ${note}` : ''}.`);

/** What the access data say of a part that comes off, before the first screw, a line each. */
export function openingNotes(machine: Machine, part: OpenPart): readonly string[] {
  const fasteners = part.fasteners ?? [];
  const connectors = (part.unplug ?? []).flatMap((id) => machine.connectors.find((one) => one.id === id)?.name ?? []);
  return [
    ...lossWords(part),
    ...(connectors.length
      ? [
          `Plugs, off and unplugged, by their bodies, glue picked off first, latch side noted: ${connectors.join(', ')}.`,
        ]
      : []),
    ...(part.parked ? ['It stays on its cable: park it supported, not hanging.'] : []),
    ...(part.aside ? [part.aside] : []),
    ...fasteners.filter(({ hidden }) => hidden).map((one) => `Hidden ${one.hidden}: ${counted(one)}.`),
    ...fasteners
      .filter(({ drive }) => drive?.includes('ball end'))
      .map((one) => `Met with the ball end only: ${counted(one)}.`),
    ...fasteners
      .filter(({ loosenOnly, drive }) => loosenOnly && drive !== undefined)
      .map((one) => `Only loosened: ${counted(one)}.`),
    ...fasteners.filter(({ stays }) => stays).map((one) => `Need not come out: ${counted(one)}.`),
    ...lookAlikes(part),
    ...(part.side ? [`Mirror-image machine: this is the ${part.side} side. Close it before the other is opened.`] : []),
  ];
}

/** What the access data say of a part that goes back, a line each. */
export function closingNotes(machine: Machine, part: OpenPart): readonly string[] {
  const fasteners = part.fasteners ?? [];
  const connectors = (part.unplug ?? []).flatMap((id) => machine.connectors.find((one) => one.id === id)?.name ?? []);
  return [
    ...(part.trial ? [`Half assembled: ${part.trial}`] : []),
    ...(part.loses ?? []).filter(({ what }) => what !== 'falling').map(({ name }) => `Back first: ${name}.`),
    ...fasteners
      .filter(({ mate }) => mate?.includes('nut'))
      .map(({ mate }) => `${mate} straight before its screw bites: resistance means back off, flip it, start again.`),
    ...(fasteners.some(({ mate }) => mate?.includes('plastic')) ? ['In plastic, stop when it stops.'] : []),
    ...(part.heats ? ['Hot end straight before the screws that finally clamp it.'] : []),
    ...lookAlikes(part),
    ...(connectors.length
      ? [`Each plug in its own socket, home until it clicks, nothing pinched: ${connectors.join(', ')}.`]
      : []),
  ];
}

/** What lies open with a part off and is looked at in passing: the looks of the catalogue whose place it opens. */
export function lookMeanwhile(machine: Machine, catalogue: Catalogue, part: string): readonly string[] {
  const kinds = new Map(
    allStations(machine).flatMap((station) =>
      station.access?.open?.at(-1) === part ? [[station.kind, station.name]] : [],
    ),
  );
  return [
    ...new Set(
      catalogue.checks.flatMap((check) =>
        check.needs === 'open' &&
        check.at === 'each' &&
        !check.swap &&
        !check.quantity &&
        !check.retired &&
        check.heat !== 'hot'
          ? (check.kinds ?? []).flatMap((kind) => {
              const name = kinds.get(kind);
              return name === undefined ? [] : [check.name.replaceAll('{station}', name)];
            })
          : [],
      ),
    ),
  ];
}
