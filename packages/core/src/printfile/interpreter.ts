import { strandArea } from '../physics/feed';
import { bit, index, type Block } from './words';

/** What a file asks of the machine, in mm, mm/s, seconds and °C, whatever units and modes it is written in. */
export interface MotionSink {
  /** A straight line at a speed, with the strand that is fed on it (drawn back: negative). */
  straight(x0: number, y0: number, z0: number, x: number, y: number, z: number, fed: number, speed: number): void;
  /** The strand alone, as the firmware does it. */
  strand(fed: number, speed: number): void;
  dwell(seconds: number): void;
  /** The machine stands still. */
  stop(): void;
  acceleration(mmPerS2: number): void;
  target(celsius: number): void;
  tool(tool: number): void;
  fault(line: number, reason: string): void;
}

const X = bit('X');
const Y = bit('Y');
const E = bit('E');
const F = bit('F');
const [iX, iY, iZ, iE, iF, iI, iJ, iR, iP, iS, iD, iT] = [
  'X',
  'Y',
  'Z',
  'E',
  'F',
  'I',
  'J',
  'R',
  'P',
  'S',
  'D',
  'T',
].map(index) as [number, number, number, number, number, number, number, number, number, number, number, number];
const AXES = X | Y | bit('Z');
const LETTER = { G: index('G'), M: index('M'), T: index('T') };
const INCH = 25.4;
/** Chord by which an arc may be replaced, mm. */
const ARC_ERROR = 0.02;

/**
 * Follows the modes of a file: units, absolute and relative axes and extruder, `G92`, arcs, dwell, retraction by firmware, volumetric
 * extrusion, tools. Semantics of RS274/NGC (NISTIR 6556), with the words of printers.
 */
export class Interpreter {
  private scale = 1;
  private absolute = true;
  private absoluteE = true;
  /** The extruder has had a mode of its own: `G90` and `G91` leave it alone from then on. */
  private ownE = false;
  private motion = 1;
  private feed = 25;
  private x = 0;
  private y = 0;
  private z = 0;
  private e = 0;
  /** Offsets that `G92` puts between the file's numbers and the machine. */
  private offX = 0;
  private offY = 0;
  private offZ = 0;
  private volumetric = 0;
  private tool = 0;
  private readonly toolE = new Map<number, number>();
  private firmwareRetract = 1;
  private retracted = false;

  constructor(private readonly sink: MotionSink) {}

  /** One line of the file. */
  line(block: Block): void {
    const { letter, code, value, present } = block;
    if (letter === LETTER.G) {
      if (code <= 3 && code >= 0 && Number.isInteger(code)) {
        this.motion = code;
        this.move(block);
        return;
      }
      switch (code) {
        case 4:
          this.sink.stop();
          this.sink.dwell(
            (present & bit('P') ? (value[iP] as number) / 1000 : 0) + (present & bit('S') ? (value[iS] as number) : 0),
          );
          return;
        case 10:
          // With words of a tool it sets an offset; alone it draws the strand back.
          if ((present & (bit('P') | bit('L') | bit('R'))) === 0) this.strand(-this.firmwareRetract, true);
          return;
        case 11:
          this.strand(this.firmwareRetract, false);
          return;
        case 20:
          this.scale = INCH;
          return;
        case 21:
          this.scale = 1;
          return;
        case 28:
          this.sink.stop();
          if ((present & AXES) === 0 || present & X) this.x = this.offX = 0;
          if ((present & AXES) === 0 || present & Y) this.y = this.offY = 0;
          if ((present & AXES) === 0 || present & bit('Z')) this.z = this.offZ = 0;
          return;
        case 90:
          this.absolute = true;
          if (!this.ownE) this.absoluteE = true;
          return;
        case 91:
          this.absolute = false;
          if (!this.ownE) this.absoluteE = false;
          return;
        case 92:
          this.position(block);
          return;
        default:
          return;
      }
    }
    if (letter === LETTER.M) {
      switch (code) {
        case 82:
          this.ownE = true;
          this.absoluteE = true;
          return;
        case 83:
          this.ownE = true;
          this.absoluteE = false;
          return;
        case 104:
        case 109:
          if (present & bit('S')) this.heat(value[iS] as number, block);
          else if (present & bit('R')) this.heat(value[iR] as number, block);
          return;
        case 200:
          this.volumetric = present & bit('D') && (value[iD] as number) > 0 ? strandArea(value[iD] as number) : 0;
          return;
        case 204: {
          const asked = present & bit('P') ? (value[iP] as number) : present & bit('S') ? (value[iS] as number) : 0;
          if (asked > 0) this.sink.acceleration(asked * this.scale);
          return;
        }
        case 207:
          if (present & bit('S')) this.firmwareRetract = (value[iS] as number) * this.scale;
          return;
        default:
          return;
      }
    }
    if (letter === LETTER.T) {
      this.toolE.set(this.tool, this.e);
      this.tool = code;
      this.e = this.toolE.get(code) ?? 0;
      this.sink.tool(code);
      return;
    }
    // Axis words alone go on with the motion before (RS274: modal groups).
    if (present & (AXES | E)) this.move(block);
  }

  private heat(targetC: number, { present, value }: Block): void {
    if (present & bit('T') && value[iT] !== this.tool) return;
    this.sink.target(targetC);
  }

  /** `G92`: the file's numbers change, the machine stands still. */
  private position({ present, value }: Block): void {
    if (present & X) this.offX = this.x - (value[iX] as number) * this.scale;
    if (present & Y) this.offY = this.y - (value[iY] as number) * this.scale;
    if (present & bit('Z')) this.offZ = this.z - (value[iZ] as number) * this.scale;
    if (present & E) this.e = (value[iE] as number) * this.scale;
    else if ((present & AXES) === 0) {
      this.offX = this.x;
      this.offY = this.y;
      this.offZ = this.z;
      this.e = 0;
    }
  }

  private move(block: Block): void {
    const { present, value, line } = block;
    if (present & F) {
      const feed = ((value[iF] as number) * this.scale) / 60;
      if (feed > 0) this.feed = feed;
    }
    const { scale } = this;
    const to = (i: number, at: number, offset: number): number =>
      (present & (1 << i)) === 0
        ? at
        : this.absolute
          ? (value[i] as number) * scale + offset
          : at + (value[i] as number) * scale;
    const x = to(iX, this.x, this.offX);
    const y = to(iY, this.y, this.offY);
    const z = to(iZ, this.z, this.offZ);
    let fed = 0;
    if (present & E) {
      const asked = (value[iE] as number) * scale;
      fed = this.absoluteE ? asked - this.e : asked;
      this.e = this.absoluteE ? asked : this.e + asked;
      if (this.volumetric > 0) fed /= this.volumetric;
    }
    if (!Number.isFinite(x + y + z + fed)) {
      this.sink.fault(line, 'a number is too large to be a place');
      return;
    }
    if (this.motion >= 2) this.arc(block, x, y, z, fed);
    else this.straight(x, y, z, fed);
  }

  private arc({ present, value, line }: Block, x: number, y: number, z: number, fed: number): void {
    const { scale } = this;
    const clockwise = this.motion === 2;
    const dx = x - this.x;
    const dy = y - this.y;
    let cx: number;
    let cy: number;
    if (present & bit('R')) {
      const r = (value[iR] as number) * scale;
      const chord = Math.hypot(dx, dy);
      const high = r * r - (chord * chord) / 4;
      if (chord === 0 || high < -1e-6) {
        this.sink.fault(line, 'an arc whose radius does not reach its end');
        this.straight(x, y, z, fed);
        return;
      }
      // The shorter way round, with a negative radius the longer one (RS274/NGC 3.5.3.1).
      const side = (clockwise ? -1 : 1) * (r < 0 ? -1 : 1);
      const h = Math.sqrt(Math.max(0, high)) / chord;
      cx = this.x + dx / 2 - side * dy * h;
      cy = this.y + dy / 2 + side * dx * h;
    } else if (present & (bit('I') | bit('J'))) {
      cx = this.x + (present & bit('I') ? (value[iI] as number) * scale : 0);
      cy = this.y + (present & bit('J') ? (value[iJ] as number) * scale : 0);
    } else {
      this.sink.fault(line, 'an arc without a centre');
      this.straight(x, y, z, fed);
      return;
    }
    const r = Math.hypot(this.x - cx, this.y - cy);
    const start = Math.atan2(this.y - cy, this.x - cx);
    let turn = Math.atan2(y - cy, x - cx) - start;
    if (clockwise && turn >= -1e-9) turn -= 2 * Math.PI;
    if (!clockwise && turn <= 1e-9) turn += 2 * Math.PI;
    const most = r > ARC_ERROR ? 2 * Math.acos(1 - ARC_ERROR / r) : Math.PI;
    const pieces = Math.min(2000, Math.max(1, Math.ceil(Math.abs(turn) / most)));
    const z0 = this.z;
    for (let i = 1; i <= pieces; i++) {
      const at = start + (turn * i) / pieces;
      const last = i === pieces;
      this.straight(
        last ? x : cx + r * Math.cos(at),
        last ? y : cy + r * Math.sin(at),
        z0 + ((z - z0) * i) / pieces,
        fed / pieces,
      );
    }
  }

  private straight(x: number, y: number, z: number, fed: number): void {
    this.sink.straight(this.x, this.y, this.z, x, y, z, fed, this.feed);
    this.x = x;
    this.y = y;
    this.z = z;
  }

  private strand(fed: number, back: boolean): void {
    if (this.retracted === back) return;
    this.retracted = back;
    this.sink.strand(fed, this.feed);
  }
}
