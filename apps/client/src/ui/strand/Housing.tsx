import { Circle, G, Line, Path, Rect } from 'react-native-svg';

export interface HousingProps {
  readonly kind: string;
  readonly x: number;
  readonly top: number;
  readonly height: number;
  readonly stroke: string;
  readonly fill: string;
}

/** What stands around the strand at a station, drawn plainly: enough to know the part, never more than the strand. */
export function Housing({ kind, x, top, height, stroke, fill }: HousingProps) {
  const y = top + height / 2;
  const bottom = top + height;
  const pen = { stroke, strokeWidth: 1.5, fill: 'none' };
  const body = { ...pen, fill };
  switch (kind) {
    case 'spool':
      return (
        <G>
          <Circle cx={x - 13} cy={y} r={11} {...body} />
          <Circle cx={x - 13} cy={y} r={7} {...pen} />
          <Circle cx={x - 13} cy={y} r={2.5} {...pen} />
        </G>
      );
    case 'tube':
      return (
        <G>
          <Line x1={x - 9} x2={x - 9} y1={top} y2={bottom} {...pen} />
          <Line x1={x + 9} x2={x + 9} y1={top} y2={bottom} {...pen} />
        </G>
      );
    case 'guide-tube':
      return (
        <G>
          <Line x1={x - 7} x2={x - 7} y1={top + 3} y2={bottom - 3} {...pen} />
          <Line x1={x + 7} x2={x + 7} y1={top + 3} y2={bottom - 3} {...pen} />
        </G>
      );
    case 'coupler':
    case 'hub-port':
      return (
        <G>
          <Rect x={x - 15} y={y - 4} width={30} height={8} rx={2} {...body} />
          <Path d={`M${x - 11} ${y + 4} L${x - 8} ${bottom - 1} H${x + 8} L${x + 11} ${y + 4}`} {...body} />
        </G>
      );
    case 'gate':
      return (
        <G>
          <Rect x={x - 26} y={top + 2} width={52} height={height - 4} rx={4} {...body} />
          <Circle cx={x - 14} cy={y} r={6} {...pen} />
          <Circle cx={x + 14} cy={y} r={6} {...pen} />
        </G>
      );
    case 'buffer':
      return (
        <G>
          <Rect x={x - 26} y={top + 2} width={52} height={height - 4} rx={2} {...body} />
          <Path d={`M${x + 14} ${top + 5} l6 3 l-12 4 l12 4 l-6 3`} {...pen} />
        </G>
      );
    case 'hub':
      return <Path d={`M${x - 27} ${top + 2} H${x + 27} L${x + 12} ${bottom - 2} H${x - 12} Z`} {...body} />;
    case 'sensor':
      return (
        <G>
          <Rect x={x - 16} y={top + 3} width={38} height={height - 6} rx={3} {...body} />
          <Path d={`M${x + 17} ${y - 5} L${x + 6} ${y + 2}`} {...pen} strokeWidth={2.5} />
          <Circle cx={x + 17} cy={y - 5} r={2} {...pen} />
        </G>
      );
    case 'cutter':
      return (
        <G>
          <Path d={`M${x - 26} ${y - 4} H${x - 8} L${x - 4} ${y} L${x - 8} ${y + 4} H${x - 26} Z`} {...body} />
          <Line x1={x + 8} x2={x + 22} y1={y} y2={y} {...pen} strokeDasharray="3 3" />
        </G>
      );
    case 'extruder':
      return (
        <G>
          <Rect x={x - 28} y={top + 2} width={56} height={height - 4} rx={5} {...body} />
          <Circle cx={x - 15} cy={y} r={9} {...pen} strokeDasharray="3 2" />
          <Circle cx={x + 15} cy={y} r={9} {...pen} strokeDasharray="3 2" />
        </G>
      );
    case 'heat-sink':
      return (
        <G>
          {[-7, -2, 3, 8].map((dy) => (
            <Line key={dy} x1={x - 24} x2={x + 24} y1={y + dy} y2={y + dy} {...pen} strokeWidth={2} />
          ))}
        </G>
      );
    case 'heat-break':
      return (
        <Path
          d={`M${x - 14} ${top + 1} Q${x - 5} ${y} ${x - 14} ${bottom - 1} M${x + 14} ${top + 1} Q${x + 5} ${y} ${x + 14} ${bottom - 1}`}
          {...pen}
        />
      );
    case 'heat-block':
      return <Rect x={x - 26} y={top + 2} width={52} height={height - 4} rx={1} {...body} />;
    case 'nozzle':
      return (
        <Path
          d={`M${x - 16} ${top + 1} H${x + 16} V${y} L${x + 4} ${bottom - 2} H${x - 4} L${x - 16} ${y} Z`}
          {...body}
        />
      );
    case 'job':
      return (
        <Path
          d={`M${x - 9} ${y - 9} H${x + 5} L${x + 10} ${y - 4} V${y + 9} H${x - 9} Z M${x - 5} ${y} H${x + 5} M${x - 5} ${y + 4} H${x + 5}`}
          {...body}
        />
      );
    default:
      return <Rect x={x - 12} y={top + 4} width={24} height={height - 8} rx={3} {...body} />;
  }
}
