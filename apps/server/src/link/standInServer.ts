import { seeded, type Machine } from '@zealous/core';
import { benchOf } from '@zealous/core/practice';
import { natureOf, StandIn, type StandInNature } from '@zealous/core/standIn';
import { createServer, type Server, type Socket } from 'node:net';

/** Simulated printers in one process, each under the id of its machine; the other side says which it wants. */
export interface StandIns {
  readonly server: Server;
  readonly printer: (id: string) => StandIn | undefined;
  /** Has a printer say something unasked. */
  readonly say: (id: string, line: string) => void;
  /** Ends the line, as a board does whose power goes. */
  readonly cut: (id: string) => void;
  readonly stop: () => void;
}

const TICK_MS = 100;

const hash = (text: string): number =>
  [...text].reduce((sum, letter) => (Math.imul(sum, 31) + (letter.codePointAt(0) ?? 0)) >>> 0, 7);

/** A printer hides a fault of its family, drawn by its name, and cools a little otherwise than its description says. */
function natureFor(machine: Machine): StandInNature {
  const seed = hash(machine.id);
  return natureOf(benchOf({ from: 'catalogue', family: machine.family, seed }), 0.85 + (seed % 31) / 100);
}

/**
 * @param speed machine seconds a second, for heat and motion; hands at the machine are as slow as ever
 * @param natures instead of hidden faults, by machine, for tests
 */
export function standIns(
  machines: readonly Machine[],
  speed = 1,
  natures: Readonly<Record<string, StandInNature>> = {},
): StandIns {
  const printers = new Map<string, StandIn>();
  const lines = new Map<string, Socket>();
  const awayUntil = new Map<string, number>();
  const mischief = new Map<string, { delayMs: number; garble: number }>();
  const printer = (id: string): StandIn | undefined => {
    const machine = machines.find((one) => one.id === id);
    if (!printers.has(id) && machine)
      printers.set(id, new StandIn(machine, natures[id] ?? natureFor(machine), seeded(hash(id))));
    return printers.get(id);
  };
  const answer = (id: string, said: readonly string[]): void => {
    const wrong = mischief.get(id) ?? { delayMs: 0, garble: 0 };
    const text = said.map((line) => {
      if (wrong.garble <= 0) return line;
      wrong.garble--;
      return line.replace(/[a-z]/gi, '#');
    });
    const write = (): void => {
      const line = lines.get(id);
      if (line && !line.destroyed && text.length) line.write(text.map((one) => `${one}\n`).join(''));
    };
    if (wrong.delayMs > 0) setTimeout(write, wrong.delayMs);
    else write();
  };
  const play = (id: string, socket: Socket, words: string): void => {
    const found = /^; stand-in (delay|garble|drop) (\d+)$/.exec(words);
    const amount = Number(found?.[2] ?? 0);
    const wrong = mischief.get(id) ?? { delayMs: 0, garble: 0 };
    if (found?.[1] === 'delay') mischief.set(id, { ...wrong, delayMs: amount });
    if (found?.[1] === 'garble') mischief.set(id, { ...wrong, garble: amount });
    if (found?.[1] === 'drop') {
      awayUntil.set(id, Date.now() + 1000 * amount);
      socket.destroy();
    }
  };
  const server = createServer((socket) => {
    let id = '';
    let buffer = '';
    socket.on('error', () => undefined);
    socket.on('data', (bytes) => {
      buffer += bytes.toString('latin1');
      const whole = buffer.split('\n');
      buffer = (whole.pop() ?? '').slice(-1000);
      for (const raw of whole) {
        const line = raw.trim();
        const wanted = /^; machine (\S+)$/.exec(line)?.[1];
        if (wanted !== undefined) {
          if (!printer(wanted) || (awayUntil.get(wanted) ?? 0) > Date.now()) {
            socket.destroy();
            return;
          }
          id = wanted;
          lines.set(id, socket);
          socket.write('start\n');
        } else if (id !== '') {
          play(id, socket, line);
          answer(id, printer(id)?.receive(line) ?? []);
        }
      }
    });
  });
  let last = Date.now();
  const timer = setInterval(() => {
    const now = Date.now();
    const seconds = (now - last) / 1000;
    last = now;
    for (const [id, one] of printers) answer(id, one.tick(speed * seconds, seconds));
  }, TICK_MS);
  return {
    server,
    printer,
    cut: (id) => void lines.get(id)?.destroy(),
    say: (id, line) => answer(id, [line]),
    stop: () => {
      clearInterval(timer);
      for (const line of lines.values()) line.destroy();
      server.close();
    },
  };
}
