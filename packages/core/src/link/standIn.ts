import type { Machine } from '../path/machine';
import { SOUND, type StandInNature } from './standInNature';
import { gaussian, type Random } from '../quantities/random';
import { takenApart } from './protocol';

interface Motion {
  readonly mm: number;
  leftS: number;
}

const NOISE_C = 0.15;
/** An odd sensor jumps by so much, about once in so many seconds (chosen). */
const JUMP_C = 35;
const JUMP_EVERY_S = 20;
/** While something feeds, a weak heater sags by so much (chosen). */
const SAG_C = 14;
/** A loose contact reads wrong so often (chosen). */
const FLICKERS = 0.4;
const BUSY_EVERY_S = 2;
const DEFAULT_STEPS = 415;
const COLD_EXTRUDE_C = 170;

/**
 * A simulated printer with a hidden fault, on the line: heat, feed and sensors as its machine's description and its fault have
 * them. Time is passed in. What a person would see at the bench is told in comments of the protocol, since nobody stands there.
 */
export class StandIn {
  temperatureC: number;
  private targetC = 0;
  private position = 0;
  private stepsPerMm: number;
  private storedSteps: number;
  private readonly trueSteps: number;
  private present = true;
  private halted = false;
  private lastLine = 0;
  private readonly motions: Motion[] = [];
  private waiting = false;
  private movedMm = 0;
  private busyS = 0;
  private idleS = 0;
  private idleOffS: number | undefined;
  private jumped = 0;

  constructor(
    private readonly machine: Machine,
    private nature: StandInNature,
    private readonly random: Random,
  ) {
    this.temperatureC = machine.heat.ambientC;
    const gears = machine.runs.flatMap(({ stations }) => stations).find(({ kind }) => kind === 'extruder');
    this.trueSteps = gears?.params?.stepsPerMm ?? DEFAULT_STEPS;
    this.stepsPerMm = this.trueSteps * (nature.stepsOff ?? 1);
    this.storedSteps = this.stepsPerMm;
  }

  /** A line from the other side; what is answered at once. */
  receive(raw: string): readonly string[] {
    const line = raw.trim();
    if (line === '') return [];
    if (line.startsWith(';')) return this.atTheBench(line.slice(1).trim());
    if (/\bM112\b/.test(line)) {
      this.halted = true;
      this.targetC = 0;
      this.motions.length = 0;
      return ['Error:Printer halted. kill() called!'];
    }
    if (/^M999\b/.test(line)) {
      this.halted = false;
      this.lastLine = 0;
      return ['start'];
    }
    if (this.halted) return [];
    const taken = takenApart(line);
    if (!taken) return [`Error:checksum mismatch, Last Line: ${this.lastLine}`, `Resend: ${this.lastLine + 1}`, 'ok'];
    const { n, command } = taken;
    const set = /^M110\s+N(\d+)/.exec(command);
    if (set) {
      this.lastLine = Number(set[1]);
      return ['ok'];
    }
    if (n !== undefined && n !== this.lastLine + 1)
      return [
        `Error:Line Number is not Last Line Number+1, Last Line: ${this.lastLine}`,
        `Resend: ${this.lastLine + 1}`,
        'ok',
      ];
    if (n !== undefined) this.lastLine = n;
    return this.obey(command);
  }

  /** What a hand does at the bench: the strand at the sensor. */
  private atTheBench(words: string): readonly string[] {
    const strand = /^stand-in strand (in|out)$/.exec(words)?.[1];
    if (strand) this.present = strand === 'in';
    // What was wrong is repaired; how it cools is its own.
    if (words === 'stand-in repaired') this.nature = { ...SOUND, coolFactor: this.nature.coolFactor };
    return [];
  }

  private obey(command: string): readonly string[] {
    const [code = ''] = command.split(/\s+/);
    const value = (letter: string): number | undefined => {
      const found = new RegExp(String.raw`\b${letter}(-?\d+(?:\.\d+)?)`).exec(command)?.[1];
      return found === undefined ? undefined : Number(found);
    };
    switch (code) {
      case 'M105':
        return [`ok ${this.reported()}`];
      case 'M104':
        this.targetC = value('S') ?? 0;
        this.idleS = 0;
        return ['ok'];
      case 'M83':
      case 'M84':
        return ['ok'];
      case 'G1':
        return this.feed(value('E') ?? 0, value('F') ?? 60);
      case 'M400':
        if (this.motions.length === 0) return ['ok'];
        this.waiting = true;
        return [];
      case 'M114':
        return [`X:0.00 Y:0.00 Z:10.00 E:${this.position.toFixed(2)} Count X:0 Y:0 Z:4000`, 'ok'];
      case 'M119':
        return ['Reporting endstop status', 'x_min: open', 'y_min: open', `filament: ${this.sensor()}`, 'ok'];
      case 'M92': {
        const steps = value('E');
        if (steps !== undefined) this.stepsPerMm = steps;
        return [
          ...(steps === undefined ? [`echo: M92 X80.00 Y80.00 Z400.00 E${this.stepsPerMm.toFixed(2)}`] : []),
          'ok',
        ];
      }
      case 'M500':
        this.storedSteps = this.stepsPerMm;
        return ['echo:Settings Stored', 'ok'];
      case 'M86':
        if (!this.nature.idleOff) return [`echo:Unknown command: "${command}"`, 'ok'];
        this.idleOffS = value('S');
        return ['ok'];
      case 'M118':
        return [`echo:${command.slice(5)}`, 'ok'];
      default:
        return [`echo:Unknown command: "${command}"`, 'ok'];
    }
  }

  private feed(mm: number, perMinute: number): readonly string[] {
    this.idleS = 0;
    if (this.temperatureC < COLD_EXTRUDE_C) return ['echo: cold extrusion prevented', 'ok'];
    this.position += mm;
    this.motions.push({ mm, leftS: (60 * Math.abs(mm)) / Math.max(1, perMinute) });
    return ['ok'];
  }

  private sensor(): string {
    const { sensor } = this.nature;
    const wrong = sensor === 'inverted' || (sensor === 'flickers' && this.random() < FLICKERS);
    const present =
      sensor === 'always-present' ? true : sensor === 'always-absent' ? false : wrong ? !this.present : this.present;
    return present ? 'TRIGGERED' : 'open';
  }

  private reported(): string {
    const read = this.temperatureC + this.jumped + NOISE_C * gaussian(this.random);
    return `T:${read.toFixed(2)} /${this.targetC.toFixed(2)} B:${this.machine.heat.ambientC.toFixed(2)} /0.00 @:0`;
  }

  /**
   * Time passes. What the printer says of itself meanwhile.
   *
   * @param idleS seconds by which its watch over idleness goes on, where the machine is run faster than the hands at it
   */
  tick(seconds: number, idleS = seconds): readonly string[] {
    const { ambientC, coolTauS, heatUpCPerS } = this.machine.heat;
    const tau = coolTauS * this.nature.coolFactor;
    const sag = this.nature.heat === 'drops' && this.motions.length > 0 ? SAG_C : 0;
    const aim = Math.max(0, this.targetC - sag);
    const rate = heatUpCPerS * (this.nature.heat === 'drops' ? 0.5 : 1);
    if (aim > this.temperatureC) this.temperatureC = Math.min(aim, this.temperatureC + rate * seconds);
    else {
      const cooled = ambientC + (this.temperatureC - ambientC) * Math.exp(-seconds / tau);
      this.temperatureC = this.targetC > 0 ? Math.max(aim, cooled) : cooled;
    }
    this.jumped = this.nature.heat === 'jumps' && this.random() < seconds / JUMP_EVERY_S ? JUMP_C : 0;
    return [...this.idle(idleS), ...this.move(seconds)];
  }

  private idle(seconds: number): readonly string[] {
    if (this.idleOffS === undefined || this.targetC === 0) return [];
    this.idleS += seconds;
    if (this.idleS < this.idleOffS) return [];
    this.targetC = 0;
    return ['echo:Hotend Idle Timeout'];
  }

  private move(seconds: number): readonly string[] {
    let left = seconds;
    while (left > 0 && this.motions[0]) {
      const [first] = this.motions;
      const used = Math.min(left, first.leftS);
      const share = first.leftS > 0 ? used / first.leftS : 1;
      const mm = first.mm * share;
      this.movedMm += mm * (mm > 0 ? this.nature.fed : 1) * (this.stepsPerMm / this.trueSteps);
      first.leftS -= used;
      left -= used;
      if (first.leftS <= 1e-9) this.motions.shift();
      else this.motions[0] = { mm: first.mm - mm, leftS: first.leftS };
    }
    if (this.motions.length > 0) {
      this.busyS += seconds;
      if (!this.waiting || this.busyS < BUSY_EVERY_S) return [];
      this.busyS = 0;
      return ['echo:busy: processing'];
    }
    this.busyS = 0;
    if (this.movedMm === 0 && !this.waiting) return [];
    const moved = this.movedMm === 0 ? [] : [`echo:at the bench: the strand moved ${this.movedMm.toFixed(1)} mm`];
    this.movedMm = 0;
    if (!this.waiting) return moved;
    this.waiting = false;
    return [...moved, 'ok'];
  }

  get stored(): number {
    return this.storedSteps;
  }
  get target(): number {
    return this.targetC;
  }
}
