import type { LinkResult } from '@zealous/contracts';
import {
  EMERGENCY,
  idleOff,
  isFilamentSensor,
  numbered,
  parseReply,
  REPORT_COMMAND,
  type Reply,
  type Report,
} from '@zealous/core';
import type { Duplex } from 'node:stream';

export interface Timing {
  /** Without a byte for so long the command is sent again; after several times the line counts as lost. */
  readonly silentMs: number;
  readonly pollMs: number;
  /** Before the line is opened again. */
  readonly againMs: number;
}
const USUAL: Timing = { silentMs: 4_000, pollMs: 1_000, againMs: 3_000 };
const MOST_TRIES = 3;
const LOG_LINES = 5_000;
const GOODBYE_MS = 1_000;
const LONGEST_LINE = 512;
/** A firmware that can sets its target to zero when nothing was fed for so long (chosen). */
export const IDLE_OFF_S = 300;
/** What no hot end reads: a garbled digit, not a temperature. */
const BELIEVED_C = { least: -20, most: 500 } as const;

interface Job {
  readonly commands: readonly string[];
  /** How long a motion of it may last without a word. */
  readonly restMs: number;
  readonly replies: Reply[];
  readonly done: (replies: readonly Reply[]) => void;
  readonly failed: (error: Error) => void;
  at: number;
}

export class LineLost extends Error {}

/**
 * The talk with one machine: one command at a time, numbered, sent again when its answer does not come, reports between. When the line is
 * lost it is opened again, and the first thing said then is target zero.
 */
export class LineSession {
  state: 'connecting' | 'up' | 'lost' | 'halted' = 'connecting';
  problem: string | undefined;
  report: (Report & { readonly atMs: number }) | undefined;
  lostAtTargetC: number | undefined;
  idleOffS: number | undefined;
  askedAtMs = Date.now();
  /** The heat was asked for over this line, not at the machine or by a print of its own. */
  heatedHere = false;
  private line: Duplex | undefined;
  private buffer = '';
  private n = 0;
  private readonly queue: Job[] = [];
  private job: Job | undefined;
  private sent = '';
  private tries = 0;
  private resend: number | undefined;
  private silent: NodeJS.Timeout | undefined;
  private poll: NodeJS.Timeout | undefined;
  private again: NodeJS.Timeout | undefined;
  private closed = false;
  private readonly lines: string[] = [];
  private readonly timing: Timing;

  constructor(
    private readonly machineId: string,
    private readonly open: () => Promise<Duplex>,
    timing: Partial<Timing> = {},
  ) {
    this.timing = { ...USUAL, ...timing };
    void this.connect();
  }

  get busy(): boolean {
    return this.job !== undefined && this.job.commands[0] !== REPORT_COMMAND;
  }

  private note(direction: '>' | '<' | '-', text: string): void {
    this.lines.push(`${new Date().toISOString()} ${direction} ${text}`);
    if (this.lines.length > LOG_LINES) this.lines.splice(0, this.lines.length - LOG_LINES);
  }

  /** The log of the line: time, direction, text. It is also read as a temperature log. */
  log(): string {
    return `${this.lines.join('\n')}\n`;
  }

  private async connect(): Promise<void> {
    try {
      const line = await this.open();
      if (this.closed) {
        line.destroy();
        return;
      }
      this.line = line;
      // A machine that had been stopped and is on the line again was started at the machine.
      if (this.state === 'halted') this.state = 'connecting';
      this.buffer = '';
      line.on('data', (bytes: Buffer) => this.heard(bytes));
      line.on('error', (error) => this.lose(error.message));
      line.on('close', () => this.lose('it was closed'));
      line.write(`; machine ${this.machineId}\n`);
      await this.begin();
    } catch (error) {
      this.lose((error as Error).message);
    }
  }

  /** Numbers from zero, heat off if it was lost hot, and the firmware's own switch for when nobody feeds. */
  private async begin(): Promise<void> {
    this.n = 0;
    const first = this.run([`M110 N0`, ...((this.lostAtTargetC ?? 0) > 0 ? ['M104 S0'] : []), idleOff(IDLE_OFF_S)]);
    this.next();
    const replies = await first;
    const unknown = replies.some((reply) => reply.kind === 'echo' && /unknown command/i.test(reply.text));
    this.idleOffS = unknown ? undefined : IDLE_OFF_S;
    this.state = 'up';
    this.problem = undefined;
    this.lostAtTargetC = undefined;
    this.note('-', 'the line is up');
    this.askForReport();
  }

  private askForReport(): void {
    clearTimeout(this.poll);
    if (this.closed || this.state !== 'up') return;
    if (!this.job && this.queue.length === 0) this.run([REPORT_COMMAND]).catch(() => undefined);
    this.poll = setTimeout(() => this.askForReport(), this.timing.pollMs);
  }

  private lose(why: string): void {
    if (this.closed || this.again) return;
    this.line?.removeAllListeners();
    this.line?.on('error', () => undefined);
    this.line?.destroy();
    this.line = undefined;
    clearTimeout(this.silent);
    clearTimeout(this.poll);
    if (this.state !== 'halted') this.state = 'lost';
    this.problem = why;
    this.lostAtTargetC = Math.max(this.lostAtTargetC ?? 0, this.report?.targetC ?? 0);
    this.note('-', `the line is lost: ${why}`);
    this.fail(new LineLost('The line to the machine was lost before it answered.'));
    this.again = setTimeout(() => {
      this.again = undefined;
      void this.connect();
    }, this.timing.againMs);
  }

  private fail(error: Error): void {
    const jobs = [...(this.job ? [this.job] : []), ...this.queue.splice(0)];
    this.job = undefined;
    for (const job of jobs) job.failed(error);
  }

  private heard(bytes: Buffer): void {
    this.buffer += bytes.toString('latin1');
    const lines = this.buffer.split('\n');
    this.buffer = (lines.pop() ?? '').slice(-LONGEST_LINE);
    for (const line of lines) if (line.trim() !== '') this.take(line.trim().slice(0, LONGEST_LINE));
  }

  private take(line: string): void {
    this.note('<', line);
    const reply = parseReply(line);
    const report = reply.kind === 'ok' || reply.kind === 'report' ? reply.report : undefined;
    if (report && report.temperatureC > BELIEVED_C.least && report.temperatureC < BELIEVED_C.most)
      this.report = { ...report, atMs: Date.now() };
    if (reply.kind === 'halted') {
      this.state = 'halted';
      this.problem = 'it was stopped, and must be started again at the machine';
      clearTimeout(this.silent);
      this.fail(new LineLost('The machine has stopped.'));
      return;
    }
    if (reply.kind === 'start' && this.state === 'halted') {
      this.state = 'connecting';
      void this.begin().catch(() => undefined);
      return;
    }
    // It began anew by itself, cold and counting from zero: the talk begins anew too.
    if (reply.kind === 'start' && this.state === 'up') {
      this.lose('the machine started anew');
      return;
    }
    if (!this.job) return;
    this.wait();
    if (reply.kind === 'resend') {
      this.resend = reply.n;
      return;
    }
    if (reply.kind !== 'ok') {
      if (reply.kind !== 'busy' && reply.kind !== 'report') this.job.replies.push(reply);
      return;
    }
    const { resend } = this;
    this.resend = undefined;
    // It took the line before and only its answer was lost.
    if (resend === undefined || resend === this.n + 1) this.answered(reply);
    else this.put();
  }

  private answered(reply: Reply): void {
    const { job } = this;
    if (!job) return;
    job.replies.push(reply);
    job.at++;
    if (job.at < job.commands.length) {
      this.say();
      return;
    }
    this.job = undefined;
    clearTimeout(this.silent);
    job.done(job.replies);
    this.next();
  }

  private next(): void {
    if (this.job || !this.line) return;
    this.job = this.queue.shift();
    if (this.job) this.say();
  }

  /** The next command of the job under its own number. */
  private say(): void {
    const command = this.job?.commands[this.job.at] ?? '';
    this.n = command.startsWith('M110') ? 0 : this.n + 1;
    this.sent = command.startsWith('M110') ? command : numbered(this.n, command);
    this.tries = 0;
    this.put();
  }

  private put(): void {
    this.note('>', this.sent);
    this.line?.write(`${this.sent}\n`);
    this.wait();
  }

  private wait(): void {
    clearTimeout(this.silent);
    this.silent = setTimeout(
      () => {
        if (!this.job) return;
        this.tries++;
        if (this.tries >= MOST_TRIES) this.lose('it does not answer');
        else this.put();
      },
      this.timing.silentMs + (this.job?.restMs ?? 0),
    );
  }

  /**
   * Sends commands one after the other.
   *
   * @param restMs how long a motion among them may last, in which a firmware without "busy" says nothing
   * @throws LineLost when the line goes before the last answer
   */
  run(commands: readonly string[], restMs = 0): Promise<readonly Reply[]> {
    return new Promise((resolve, reject) => {
      if (this.state === 'halted' || (!this.line && this.state !== 'connecting')) {
        reject(new LineLost('The machine is not on the line.'));
        return;
      }
      this.queue.push({ commands, restMs, replies: [], done: resolve, failed: reject, at: 0 });
      this.next();
    });
  }

  /** Past everything that waits; nothing is asked first. @throws LineLost when there is no line to stop it by */
  emergency(): void {
    if (!this.line) throw new LineLost('The line is lost, so it cannot be stopped from here. Go to the machine.');
    this.note('>', EMERGENCY);
    this.line?.write(`${EMERGENCY}\n`);
  }

  /** After a stop, when somebody is at the machine. */
  startAgain(): void {
    this.note('>', 'M999');
    this.line?.write('M999\n');
  }

  /** A comment, which a real machine passes over. */
  comment(text: string): void {
    this.line?.write(`; ${text}\n`);
  }

  /** Nobody watches any more: what it heats to is set to zero first. */
  close(): void {
    if ((this.report?.targetC ?? 0) > 0) this.line?.write('M104 S0\n');
    this.closed = true;
    for (const timer of [this.silent, this.poll, this.again]) clearTimeout(timer);
    this.fail(new LineLost('The line was closed.'));
    // What was written goes out before it ends; who does not answer that is not waited for.
    const { line } = this;
    line?.on('error', () => undefined);
    line?.end();
    if (line) setTimeout(() => line.destroy(), GOODBYE_MS).unref();
  }
}

const BENCH = 'at the bench: ';

/** What a person wants to know of some replies. */
export function resultOf(replies: readonly Reply[], report: Report | undefined): LinkResult {
  const switches = replies.flatMap((reply) =>
    reply.kind === 'switch' ? [{ name: reply.name, closed: reply.closed }] : [],
  );
  const position = replies.find((reply) => reply.kind === 'position');
  const steps = replies.findLast((reply) => reply.kind === 'steps');
  const texts = replies.flatMap((reply) => (reply.kind === 'echo' || reply.kind === 'error' ? [reply.text] : []));
  const bench = texts.find((text) => text.startsWith(BENCH));
  const filament = switches.find(({ name }) => isFilamentSensor(name));
  return {
    ...(report ? { temperatureC: report.temperatureC } : {}),
    ...(switches.length ? { switches } : {}),
    ...(filament ? { filament: filament.closed } : {}),
    ...(position ? { positionMm: position.e } : {}),
    ...(steps ? { stepsPerMm: steps.e } : {}),
    ...(bench === undefined ? {} : { atTheBench: bench.slice(BENCH.length) }),
    said: texts.filter((text) => text !== bench),
  };
}
