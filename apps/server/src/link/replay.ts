import { Duplex } from 'node:stream';

/** One thing said to the machine in a log of its line, and what it answered before the next. */
interface Exchange {
  readonly said: string;
  readonly answers: readonly string[];
}

const LINE = /^\S+ ([<>]) (.*)$/;

/** A saved log of a line, taken apart. */
export function exchangesOf(log: string): readonly Exchange[] {
  const list: { said: string; answers: string[] }[] = [];
  for (const raw of log.split('\n')) {
    const found = LINE.exec(raw);
    if (found?.[1] === '>') list.push({ said: found[2] ?? '', answers: [] });
    else if (found) list.at(-1)?.answers.push(found[2] ?? '');
  }
  return list;
}

/** What was asked, without number and checksum. */
const plain = (line: string): string => line.replace(/^N\d+\s+/, '').replace(/\*\d+$/, '');

/**
 * A line that answers from a saved log: to each command what the machine had answered to it, in the order of the log; a command that
 * is not in it any more gets "ok".
 */
export function replayed(log: string): Duplex {
  const left = [...exchangesOf(log)];
  let buffer = '';
  const line: Duplex = new Duplex({
    read: () => undefined,
    write: (bytes: Buffer, _encoding, done) => {
      buffer += bytes.toString('latin1');
      const whole = buffer.split('\n');
      buffer = whole.pop() ?? '';
      for (const raw of whole) {
        if (raw.startsWith(';')) continue;
        const at = left.findIndex(({ said }) => plain(said) === plain(raw));
        const [found] = at < 0 ? [] : left.splice(at, 1);
        for (const answer of found?.answers ?? ['ok']) line.push(`${answer}\n`);
      }
      done();
    },
  });
  return line;
}
