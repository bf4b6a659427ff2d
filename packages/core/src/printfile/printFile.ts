import { strandArea } from '../physics/feed';
import { Interpreter, type MotionSink } from './interpreter';
import { MoveQueue, USUAL_ACCELERATION, USUAL_DEVIATION, type Limits } from './motion';
import { OverTime } from './overTime';
import { StrandAccount } from './strandAccount';
import { WordReader } from './words';

/** One layer of the print, as the file asks for it. */
export interface PrintLayer {
  /** Height of the nozzle, mm; seconds from the start of the file to the first line of it, and its own. */
  readonly zMm: number;
  readonly startS: number;
  readonly seconds: number;
  /** Strand that is used up in it, mm. */
  readonly strandMm: number;
  /** Over a second at a time, mm³/s: the most, and the mean while something is laid. */
  readonly peakFlow: number;
  readonly meanFlow: number;
  readonly retractions: number;
  /** Most often that one piece of the strand goes back through the gears. */
  readonly samePiece: number;
  /** Set temperature of the nozzle at its start, °C; 0 where nobody set one. */
  readonly targetC: number;
}

/** An even stretch of time, for pictures over time. */
export interface PrintSpan {
  readonly startS: number;
  readonly meanFlow: number;
  readonly peakFlow: number;
  readonly retractions: number;
  readonly targetC: number;
}

export interface PrintFile {
  readonly lines: number;
  readonly bytes: number;
  /** By the model of `motion.ts`, s. */
  readonly seconds: number;
  /** Strand used up, mm, and as grams for a density. */
  readonly strandMm: number;
  readonly layers: readonly PrintLayer[];
  readonly spans: readonly PrintSpan[];
  readonly spanS: number;
  readonly retractions: number;
  readonly longestRetractionMm: number;
  /** Tools that something is laid with. */
  readonly tools: readonly number[];
  /** The piece of strand that is drawn back most often: how often, where on the strand, in which layer and at which place. */
  readonly worstPiece?: {
    readonly times: number;
    readonly strandMm: number;
    readonly layer: number;
    readonly x: number;
    readonly y: number;
  };
  /** Lines that could not be read as motion, at most a few: with what is wrong. */
  readonly faults: readonly { readonly line: number; readonly reason: string }[];
}

export interface ReadOptions {
  readonly strandMm: number;
  /** Keeps the lines of this layer, for a drawing. */
  readonly draw?: number;
}

/** A stretch of a drawn layer: laid or travelled, with the flow asked, mm³/s. */
export interface DrawnLine {
  readonly x1: number;
  readonly y1: number;
  readonly x2: number;
  readonly y2: number;
  readonly flow: number;
  /** Strand drawn back here. */
  readonly retracted?: boolean;
}

/** A layer begins where something is laid higher by this much than before, mm: a spiral rises a little all the time (chosen). */
const LAYER_STEP = 0.04;
const MOST_DRAWN = 20_000;
const MOST_FAULTS = 20;
/** Moves that may wait for their times: more than the queue holds, a power of two. */
const WAITING = 512;

/** What is known of a layer before its moves have their times. */
interface OpenLayer {
  readonly zMm: number;
  readonly targetC: number;
  strandMm: number;
  retractions: number;
  samePiece: number;
}

/** Reads a print file from chunks, with bounded memory: layers, spans of time and the drawing are all that is kept. */
export class PrintFileReader implements MotionSink {
  /** Lines of the layer that was asked for. */
  readonly drawing: DrawnLine[] = [];
  private readonly words: WordReader;
  private readonly area: number;
  private readonly limits: Limits = { acceleration: USUAL_ACCELERATION, deviationMm: USUAL_DEVIATION };
  private readonly account = new StrandAccount();
  private readonly overTime = new OverTime();
  private readonly queue = new MoveQueue((seconds) => this.moved(seconds));
  private bytes = 0;
  private lines = 0;
  private targetC = 0;
  private atTool = 0;
  private atX = 0;
  private atY = 0;
  private readonly tools = new Set<number>();
  private worst: PrintFile['worstPiece'];
  private readonly layers: OpenLayer[] = [];
  private open: OpenLayer | undefined;
  private readonly faults: { line: number; reason: string }[] = [];
  // What a queued move means once its time is known.
  private readonly laid = new Float64Array(WAITING);
  private readonly layerOf = new Int32Array(WAITING);
  private readonly targets = new Float64Array(WAITING);
  private readonly drawnBack = new Uint8Array(WAITING);
  private head = 0;
  private tail = 0;

  constructor(private readonly options: ReadOptions) {
    this.area = strandArea(options.strandMm);
    const interpreter = new Interpreter(this);
    this.words = new WordReader((block) => {
      this.lines = block.line;
      interpreter.line(block);
    });
  }

  write(chunk: Uint8Array): void {
    this.bytes += chunk.length;
    this.words.write(chunk);
  }

  /** The layer that was asked for is over: what follows need not be read for the drawing. */
  get drawn(): boolean {
    return this.options.draw !== undefined && this.layers.length > this.options.draw;
  }

  end(): PrintFile {
    const { words, queue, overTime, account, area, worst } = this;
    words.end();
    queue.stop();
    overTime.closeSecond();
    this.closeLayer();
    const layers = this.layers.map((layer, i): PrintLayer => {
      const laid = overTime.laidS[i] ?? 0;
      return {
        ...layer,
        startS: overTime.starts[i] ?? 0,
        seconds: overTime.ownS[i] ?? 0,
        peakFlow: (overTime.peaksMm[i] ?? 0) * area,
        meanFlow: laid > 0 ? (layer.strandMm * area) / laid : 0,
      };
    });
    return {
      lines: this.lines,
      bytes: this.bytes,
      seconds: overTime.time,
      strandMm: layers.reduce((sum, { strandMm }) => sum + strandMm, 0),
      layers,
      spans: overTime.spans.map(({ mm, peakMm, retractions, targetC }, i) => ({
        startS: i * overTime.spanS,
        meanFlow: (mm * area) / overTime.spanS,
        peakFlow: peakMm * area,
        retractions,
        targetC,
      })),
      spanS: overTime.spanS,
      retractions: account.retractions,
      longestRetractionMm: account.longest,
      tools: [...this.tools].sort((a, b) => a - b),
      ...(worst ? { worstPiece: worst } : {}),
      faults: this.faults,
    };
  }

  fault(line: number, reason: string): void {
    if (this.faults.length < MOST_FAULTS) this.faults.push({ line, reason });
  }

  stop(): void {
    this.queue.stop();
  }

  acceleration(mmPerS2: number): void {
    this.limits.acceleration = mmPerS2;
  }

  target(celsius: number): void {
    this.targetC = celsius;
  }

  tool(tool: number): void {
    this.atTool = tool;
  }

  dwell(seconds: number): void {
    this.queue.stop();
    if (seconds > 0) this.overTime.add(0, seconds, -1, this.targetC, false);
  }

  straight(x0: number, y0: number, z0: number, x: number, y: number, z: number, fed: number, speed: number): void {
    const dx = x - x0;
    const dy = y - y0;
    const dz = z - z0;
    this.atX = x;
    this.atY = y;
    const way = Math.sqrt(dx * dx + dy * dy + dz * dz);
    const mm = way > 0 ? way : Math.abs(fed);
    if (mm === 0) return;
    const laying = fed > 0 && (dx !== 0 || dy !== 0);
    if (laying) this.layerAt(z);
    const back = this.feedStrand(fed, x0, y0);
    if (this.layers.length === this.options.draw && this.open && (laying || back) && this.drawing.length < MOST_DRAWN)
      this.drawing.push({
        x1: x0,
        y1: y0,
        x2: x,
        y2: y,
        flow: laying ? (fed * this.area * speed) / mm : 0,
        ...(back ? { retracted: true } : {}),
      });
    if (laying && this.open) {
      this.open.strandMm += fed;
      this.tools.add(this.atTool);
    }
    this.wait(laying ? fed : 0, back);
    if (way > 0) this.queue.add(mm, speed, dx / way, dy / way, dz / way, this.limits);
    else this.queue.add(mm, speed, 0, 0, 0, this.limits);
  }

  strand(fed: number, speed: number): void {
    this.wait(0, this.feedStrand(fed, this.atX, this.atY));
    this.queue.add(Math.abs(fed), speed, 0, 0, 0, this.limits);
  }

  /** Keeps account of the strand; true where a retraction begins. */
  private feedStrand(fed: number, x: number, y: number): boolean {
    if (fed === 0 || !this.account.feed(fed)) return false;
    const { pieceTimes, pieceFrom } = this.account;
    if (this.open) {
      this.open.retractions++;
      this.open.samePiece = Math.max(this.open.samePiece, pieceTimes);
    }
    if (pieceTimes > (this.worst?.times ?? 0))
      this.worst = { times: pieceTimes, strandMm: pieceFrom, layer: this.layers.length, x, y };
    return true;
  }

  private layerAt(z: number): void {
    if (this.open && Math.abs(z - this.open.zMm) < LAYER_STEP) return;
    // Back on a height that is begun already (several objects, one after the other) counts as a layer of its own.
    this.closeLayer();
    this.open = { zMm: z, targetC: this.targetC, strandMm: 0, retractions: 0, samePiece: 0 };
  }

  private closeLayer(): void {
    if (this.open) this.layers.push(this.open);
    this.open = undefined;
  }

  /** Remembers what a move means until its time is known. */
  private wait(laidMm: number, back: boolean): void {
    const i = this.tail++ & (WAITING - 1);
    this.laid[i] = laidMm;
    this.layerOf[i] = this.open ? this.layers.length : -1;
    this.targets[i] = this.targetC;
    this.drawnBack[i] = back ? 1 : 0;
  }

  private moved(seconds: number): void {
    const i = this.head++ & (WAITING - 1);
    this.overTime.add(
      this.laid[i] as number,
      seconds,
      this.layerOf[i] as number,
      this.targets[i] as number,
      this.drawnBack[i] === 1,
    );
  }
}
