import type { LineAsk, LinkResult, LinkStatus, StandInDeed, TakeControl } from '@zealous/contracts';
import { intentOf } from '@zealous/contracts';
import { benchAt, commandsOf, lineRefusal, materialOf, reduceOrder, routeOf, type LineIntent } from '@zealous/core';
import type { DataSource } from 'typeorm';
import { LinkRow } from '../db/entities';
import { notFound, Problem } from '../http/problem';
import { machineById } from '../machines';
import { orderDocument } from '../orders';
import { catalogueOf } from '../shop';
import { LineLost, LineSession, resultOf, type Timing } from './session';
import { openLine } from './transport';

/** Who has a machine in hand loses it when nothing was heard of the phone for so long. */
const HELD_MS = 30_000;
/** A cold line that nobody asks about is given up after so long. */
const UNASKED_MS = 120_000;
const SWEEP_MS = 20_000;
/** Heat that was asked for here goes off when no phone has looked at the machine for so long (chosen). */
const UNWATCHED_MS = 600_000;
/** A temperature older than this is none. */
const STALE_MS = 5_000;

/** The line is at fault, not this server. @throws Problem 409 for a line that is lost */
function offTheLine(error: unknown): never {
  if (error instanceof LineLost) throw new Problem(409, 'Off the line', error.message);
  throw error;
}

const MOST_ASKED = 3;

/** How long a motion takes, ms. */
const lastsMs = (intent: LineIntent): number =>
  intent.do === 'feed' ? (1000 * Math.abs(intent.mm)) / intent.mmPerS : 0;

/** Whether what came back holds what a question was for. */
function answers({ do: what }: LineIntent, { switches, positionMm, stepsPerMm }: LinkResult): boolean {
  if (what === 'sensors') return switches !== undefined;
  if (what === 'position') return positionMm !== undefined;
  return what !== 'read-steps' || stepsPerMm !== undefined;
}

interface Held {
  phone: string;
  by: string;
  untilMs: number;
}

/** The lines to the machines of the shop, each opened when somebody asks about it. */
export class Links {
  private readonly sessions = new Map<string, { readonly address: string; readonly line: LineSession }>();
  private readonly held = new Map<string, Held>();
  private readonly sweep: NodeJS.Timeout;

  constructor(
    private readonly db: DataSource,
    private readonly timing: Partial<Timing & { readonly unwatchedMs: number; readonly sweepMs: number }> = {},
  ) {
    this.sweep = setInterval(() => this.giveUp(), timing.sweepMs ?? SWEEP_MS).unref();
  }

  private giveUp(): void {
    for (const [id, { line }] of this.sessions) {
      const unasked = Date.now() - line.askedAtMs;
      const hot = (line.report?.targetC ?? 0) > 0;
      if (hot && line.heatedHere && unasked > (this.timing.unwatchedMs ?? UNWATCHED_MS)) {
        line.heatedHere = false;
        line.run(commandsOf({ do: 'target', c: 0 })).catch(() => undefined);
      } else if (!hot && unasked > UNASKED_MS) this.close(id);
    }
  }

  private close(id: string): void {
    this.sessions.get(id)?.line.close();
    this.sessions.delete(id);
  }

  stop(): void {
    clearInterval(this.sweep);
    for (const id of this.sessions.keys()) this.close(id);
  }

  private async addressOf(machineId: string): Promise<string | undefined> {
    return (await this.db.getRepository(LinkRow).findOneBy({ machineId }))?.address;
  }

  /** Addresses by machine; opens no line. */
  async addresses(): Promise<Readonly<Record<string, string>>> {
    const rows = await this.db.getRepository(LinkRow).find({ order: { machineId: 'asc' } });
    return Object.fromEntries(rows.map(({ machineId, address }) => [machineId, address]));
  }

  /** @throws Problem 404 */
  async put(machineId: string, address: string): Promise<LinkStatus> {
    await machineById(this.db, machineId);
    await this.db.getRepository(LinkRow).save({ machineId, address });
    if (this.sessions.get(machineId)?.address !== address) this.close(machineId);
    return this.status(machineId);
  }

  async drop(machineId: string): Promise<void> {
    await this.db.getRepository(LinkRow).delete({ machineId });
    this.close(machineId);
  }

  private async session(machineId: string): Promise<{ readonly address: string; readonly line: LineSession }> {
    const address = await this.addressOf(machineId);
    if (address === undefined) throw notFound('line to this machine; give it one on the machine’s page');
    let known = this.sessions.get(machineId);
    if (known?.address !== address) {
      this.close(machineId);
      known = { address, line: new LineSession(machineId, () => openLine(address), this.timing) };
      this.sessions.set(machineId, known);
    }
    known.line.askedAtMs = Date.now();
    return known;
  }

  private holder(machineId: string): Held | undefined {
    const held = this.held.get(machineId);
    if (held && held.untilMs > Date.now()) return held;
    this.held.delete(machineId);
    return undefined;
  }

  /** How the line stands; a phone that has the machine in hand keeps it by asking. @throws Problem 404 without a line */
  async status(machineId: string, phone?: string): Promise<LinkStatus> {
    const { address, line } = await this.session(machineId);
    const held = this.holder(machineId);
    if (held && held.phone === phone) held.untilMs = Date.now() + HELD_MS;
    const { report, problem, idleOffS, lostAtTargetC } = line;
    return {
      address,
      standIn: address === 'stand-in',
      state: line.state,
      busy: line.busy,
      ...(problem === undefined ? {} : { problem }),
      ...(report
        ? {
            temperatureC: report.temperatureC,
            heardAt: new Date(report.atMs).toISOString(),
            ...(report.targetC === undefined ? {} : { targetC: report.targetC }),
          }
        : {}),
      ...(idleOffS === undefined ? {} : { idleOffS }),
      ...(lostAtTargetC ? { lostAtTargetC } : {}),
      ...(held ? { holder: { phone: held.phone, by: held.by } } : {}),
    };
  }

  /** @throws Problem 409 while somebody else has it */
  async take(machineId: string, { phone, by, force }: TakeControl): Promise<LinkStatus> {
    await this.session(machineId);
    const held = this.holder(machineId);
    if (held && held.phone !== phone && !force)
      throw new Problem(409, 'In other hands', `${held.by} has this machine in hand. Ask there, or take it over.`);
    this.held.set(machineId, { phone, by, untilMs: Date.now() + HELD_MS });
    return this.status(machineId, phone);
  }

  /**
   * Has the machine do something, when who asks has it in hand and the bench of the order allows it.
   *
   * @throws Problem 404, 409 with the reason or when the line is lost, 422
   */
  async ask(machineId: string, { phone, order, intent: wanted }: LineAsk): Promise<LinkResult> {
    const intent = intentOf(wanted);
    if (!intent) throw new Problem(422, 'Not in the expected form', 'a figure is missing', '/intent');
    const { line } = await this.session(machineId);
    const held = this.holder(machineId);
    if (held?.phone !== phone)
      throw new Problem(
        409,
        'In other hands',
        held ? `${held.by} has this machine in hand now.` : 'Nobody has this machine in hand: take it first.',
      );
    held.untilMs = Date.now() + HELD_MS;
    await this.allowed(machineId, order, intent, line);
    if (intent.do === 'target') line.heatedHere = intent.c > 0;
    let result: LinkResult;
    let tries = 0;
    // A question may be put again where its answer came garbled; a motion is never done twice.
    do {
      result = resultOf(await line.run(commandsOf(intent), lastsMs(intent)).catch(offTheLine), line.report);
      held.untilMs = Date.now() + HELD_MS;
    } while (!answers(intent, result) && ++tries < MOST_ASKED);
    return result;
  }

  private async allowed(machineId: string, orderId: string, intent: LineIntent, line: LineSession): Promise<void> {
    const { machine, events } = await orderDocument(this.db, orderId);
    if (machine.id !== machineId) throw new Problem(409, 'Another machine', 'This order is for another machine.');
    const catalogue = await catalogueOf(this.db);
    const state = reduceOrder(
      machine,
      catalogue,
      events.map(({ event }) => event),
    );
    if (state.closed) throw new Problem(409, 'Closed', 'The order is closed: the machine is the owner’s again.');
    const { report } = line;
    if (!report || Date.now() - report.atMs > STALE_MS + (line.busy ? STALE_MS : 0)) {
      if (intent.do === 'target' && intent.c === 0) return;
      throw new Problem(409, 'Not heard', 'Its temperature was not heard just now. Wait for the line.');
    }
    const bench = {
      ...benchAt(machine, state, Date.now()),
      temperatureC: report.temperatureC,
      coldSure: true,
    };
    const route = routeOf(machine, state.intake?.lane);
    const refusal = lineRefusal(machine, route, materialOf(catalogue, state.intake?.material), bench, intent);
    if (refusal !== undefined) throw new Problem(409, 'Not as it stands', refusal);
  }

  /** Stops the machine at once; anybody may. @throws Problem 409 when the line is lost */
  async emergency(machineId: string): Promise<LinkStatus> {
    const { line } = await this.session(machineId);
    try {
      line.emergency();
    } catch (error) {
      offTheLine(error);
    }
    return this.status(machineId);
  }

  /** After a stop: who stands at the machine has it in hand. @throws Problem 409 when it has not stopped */
  async startAgain(machineId: string, take: TakeControl): Promise<LinkStatus> {
    const { line } = await this.session(machineId);
    if (line.state !== 'halted') throw new Problem(409, 'Not stopped', 'The machine has not been stopped.');
    await this.take(machineId, { ...take, force: true });
    line.startAgain();
    return this.status(machineId, take.phone);
  }

  async log(machineId: string): Promise<string> {
    return (await this.session(machineId)).line.log();
  }

  /** @throws Problem 409 for a real machine */
  async standIn(machineId: string, deed: StandInDeed): Promise<LinkStatus> {
    const { address, line } = await this.session(machineId);
    if (address !== 'stand-in')
      throw new Problem(409, 'A real machine', 'Only a simulated printer can be played with.');
    if (deed.strand) line.comment(`stand-in strand ${deed.strand}`);
    if (deed.repaired) line.comment('stand-in repaired');
    if (deed.delayMs !== undefined) line.comment(`stand-in delay ${deed.delayMs}`);
    if (deed.garble !== undefined) line.comment(`stand-in garble ${deed.garble}`);
    if (deed.dropS !== undefined) line.comment(`stand-in drop ${deed.dropS}`);
    return this.status(machineId);
  }
}
