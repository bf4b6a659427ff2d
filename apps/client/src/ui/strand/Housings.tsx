import { Path } from 'react-native-svg';

/** Outlines of what stands around the strand, as SVG path data by how each is drawn. */
interface Outlines {
  /** Filled, so that what lies behind does not show through. */
  readonly body?: string;
  readonly pen?: string;
  readonly strong?: string;
  readonly dashed?: string;
}

/**
 * Outlines at one station, drawn plainly: enough to know the part, never more than the strand.
 *
 * @param x axis of the strand, px
 * @param across how much narrower than designed it is drawn across the strand
 */
function outlinesOf(kind: string, x: number, top: number, height: number, across: number): Outlines {
  const y = top + height / 2;
  const bottom = top + height;
  const at = (dx: number): number => x + dx * across;
  const circle = (dx: number, cy: number, r: number): string => {
    const rx = r * across;
    return `M${at(dx) - rx} ${cy}a${rx} ${r} 0 1 0 ${2 * rx} 0a${rx} ${r} 0 1 0 ${-2 * rx} 0Z`;
  };
  const box = (dx: number, from: number, wide: number, high: number, r: number): string => {
    const rx = r * across;
    const w = wide * across - 2 * rx;
    const h = high - 2 * r;
    const arc = (sx: number, sy: number): string => `a${rx} ${r} 0 0 1 ${sx * rx} ${sy * r}`;
    return `M${at(dx) + rx} ${from}h${w}${arc(1, 1)}v${h}${arc(-1, 1)}h${-w}${arc(-1, -1)}v${-h}${arc(1, -1)}Z`;
  };
  const sides = (dx: number, from: number, to: number): string => `M${at(-dx)} ${from}V${to}M${at(dx)} ${from}V${to}`;
  const line = (points: readonly (readonly [number, number])[]): string =>
    points.map(([dx, py], i) => `${i === 0 ? 'M' : 'L'}${at(dx)} ${py}`).join('');
  switch (kind) {
    case 'spool':
      return { body: circle(-13, y, 11), pen: circle(-13, y, 7) + circle(-13, y, 2.5) };
    case 'tube':
      return { pen: sides(9, top, bottom) };
    case 'guide-tube':
      return { pen: sides(7, top + 3, bottom - 3) };
    case 'coupler':
    case 'hub-port':
      return {
        body:
          box(-15, y - 4, 30, 8, 2) +
          line([
            [-11, y + 4],
            [-8, bottom - 1],
            [8, bottom - 1],
            [11, y + 4],
          ]),
      };
    case 'gate':
      return { body: box(-26, top + 2, 52, height - 4, 4), pen: circle(-14, y, 6) + circle(14, y, 6) };
    case 'buffer':
      return {
        body: box(-26, top + 2, 52, height - 4, 2),
        pen: line([
          [14, top + 5],
          [20, top + 8],
          [8, top + 12],
          [20, top + 16],
          [14, top + 19],
        ]),
      };
    case 'hub':
      return {
        body: `${line([
          [-27, top + 2],
          [27, top + 2],
          [12, bottom - 2],
          [-12, bottom - 2],
        ])}Z`,
      };
    case 'sensor':
      return {
        body: box(-16, top + 3, 38, height - 6, 3),
        strong: line([
          [17, y - 5],
          [6, y + 2],
        ]),
        pen: circle(17, y - 5, 2),
      };
    case 'cutter':
      return {
        body: `${line([
          [-26, y - 4],
          [-8, y - 4],
          [-4, y],
          [-8, y + 4],
          [-26, y + 4],
        ])}Z`,
        dashed: line([
          [8, y],
          [22, y],
        ]),
      };
    case 'extruder':
      return { body: box(-28, top + 2, 56, height - 4, 5), dashed: circle(-15, y, 9) + circle(15, y, 9) };
    case 'heat-sink':
      return {
        strong: [-7, -2, 3, 8]
          .map((dy) =>
            line([
              [-24, y + dy],
              [24, y + dy],
            ]),
          )
          .join(''),
      };
    case 'heat-break':
      return {
        pen: `M${at(-14)} ${top + 1}Q${at(-5)} ${y} ${at(-14)} ${bottom - 1}M${at(14)} ${top + 1}Q${at(5)} ${y} ${at(14)} ${bottom - 1}`,
      };
    case 'heat-block':
      return { body: box(-26, top + 2, 52, height - 4, 1) };
    case 'nozzle':
      return {
        body: `${line([
          [-16, top + 1],
          [16, top + 1],
          [16, y],
          [4, bottom - 2],
          [-4, bottom - 2],
          [-16, y],
        ])}Z`,
      };
    case 'job':
      return {
        body: `${line([
          [-9, y - 9],
          [5, y - 9],
          [10, y - 4],
          [10, y + 9],
          [-9, y + 9],
        ])}Z`,
        pen:
          line([
            [-5, y],
            [5, y],
          ]) +
          line([
            [-5, y + 4],
            [5, y + 4],
          ]),
      };
    default:
      return { body: box(-12, top + 4, 24, height - 8, 3) };
  }
}

export interface HousingsProps {
  readonly rows: readonly { readonly kind: string; readonly top: number; readonly height: number }[];
  readonly x: number;
  readonly across?: number;
  readonly stroke: string;
  readonly fill: string;
}

/** What stands around the strand along the path, in a few outlines for all of it: the strand is drawn anew at every frame while it moves. */
export function Housings({ rows, x, across = 1, stroke, fill }: HousingsProps) {
  const all = rows.map(({ kind, top, height }) => outlinesOf(kind, x, top, height, across));
  const of = (part: keyof Outlines): string => all.map((outlines) => outlines[part] ?? '').join('');
  const pen = { stroke, strokeWidth: 1.5, fill: 'none' };
  const [body, strong, dashed] = [of('body'), of('strong'), of('dashed')];
  return (
    <>
      {body ? <Path d={body} {...pen} fill={fill} /> : null}
      <Path d={of('pen') || 'M0 0'} {...pen} />
      {strong ? <Path d={strong} {...pen} strokeWidth={2.2} /> : null}
      {dashed ? <Path d={dashed} {...pen} strokeDasharray="3 2" /> : null}
    </>
  );
}
