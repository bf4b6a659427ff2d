/**
 * `npm run bench:printfile [-- MB]`: a print file of 100 MB, made here, read as a stream: the bytes alone, our reader, and a general parser
 * from the registry on the same lines. Time, speed and the most memory of each, in a process of its own.
 */
import { execFileSync } from 'node:child_process';
import { closeSync, createReadStream, mkdtempSync, openSync, rmSync, statSync, writeSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { PrintFileReader } from '@zealous/core';
import { parseLine } from 'gcode-parser';
import { seeded } from './worlds';

const MB = 1024 * 1024;
type Way = 'bytes' | 'ours' | 'general';

/** Layers of a lattice with short lines, as a detailed part has them. */
function make(path: string, megabytes: number): void {
  const random = seeded(7);
  const file = openSync(path, 'w');
  writeSync(file, 'G21\nG90\nM83\nM104 S210\nG28\nG92 E0\n');
  let written = 0;
  for (let layer = 1; written < megabytes * MB; layer++) {
    const lines = [`; layer ${layer}`, `G1 Z${(layer * 0.2).toFixed(2)} F600`, 'G1 F3000'];
    for (let i = 0; i < 4000; i++) {
      const [x, y] = [20 + random() * 180, 20 + random() * 180];
      lines.push(`G1 X${x.toFixed(3)} Y${y.toFixed(3)} E${(0.02 + random() * 0.2).toFixed(5)}`);
      if (i % 40 === 0)
        lines.push('G1 E-0.8 F2100', `G0 X${(x + 5).toFixed(3)} Y${y.toFixed(3)} F9000`, 'G1 E0.8 F2100', 'G1 F3000');
    }
    written += writeSync(file, `${lines.join('\n')}\n`);
  }
  closeSync(file);
}

const peakMb = (): number => Math.round(process.resourceUsage().maxRSS / 1024);

async function read(way: Way, path: string): Promise<void> {
  const began = performance.now();
  let said = '';
  if (way === 'bytes') {
    let n = 0;
    for await (const chunk of createReadStream(path, { highWaterMark: MB })) n += (chunk as Buffer).length;
    said = `${n} bytes`;
  } else if (way === 'ours') {
    const reader = new PrintFileReader({ strandMm: 1.75 });
    for await (const chunk of createReadStream(path, { highWaterMark: MB })) reader.write(chunk as Buffer);
    const { lines, layers, seconds } = reader.end();
    said = `${lines} lines, ${layers.length} layers, ${(seconds / 3600).toFixed(1)} h`;
  } else {
    let words = 0;
    for await (const line of createInterface({ input: createReadStream(path) })) words += parseLine(line).words.length;
    said = `${words} words, nothing reckoned`;
  }
  const s = (performance.now() - began) / 1000;
  console.log(
    JSON.stringify({
      way,
      s: Number(s.toFixed(2)),
      'MB/s': Math.round(statSync(path).size / MB / s),
      'most memory, MB': peakMb(),
      said,
    }),
  );
}

const [, , first = '100', path] = process.argv;
if (path) void read(first as Way, path);
else {
  const folder = mkdtempSync(join(tmpdir(), 'print-'));
  const file = join(folder, 'large.gcode');
  make(file, Number(first));
  const rows = (['bytes', 'ours', 'general'] as const).map(
    (way) =>
      JSON.parse(
        execFileSync(process.execPath, ['-r', '@swc-node/register', __filename, way, file], { encoding: 'utf8' }),
      ) as object,
  );
  console.table(rows);
  rmSync(folder, { recursive: true });
}
