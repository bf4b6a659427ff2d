import fc from 'fast-check';
import { parseStringSync } from 'gcode-parser';
import { cornerSpeed, moveSeconds, MoveQueue } from './motion';
import { PrintFileReader, type PrintFile } from './printFile';
import { deliveredCatalogue } from '../catalogue/index';
import { askedAt, judgeStop, stopResult, toldStop } from './stop';
import { WordReader } from './words';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
function read(text: string, draw?: number): PrintFile & { readonly drawing: PrintFileReader['drawing'] } {
  const reader = new PrintFileReader({ strandMm: 1.75, ...(draw === undefined ? {} : { draw }) });
  reader.write(bytes(text));
  return { ...reader.end(), drawing: reader.drawing };
}
/** A print of `layers` squares, 20 mm wide; `row` may add lines to a layer. */
function squares(layers: number, speed: number, row: (layer: number) => string = () => ''): string {
  const list = ['M83', 'G90', 'M104 S210', 'G92 E0'];
  for (let i = 0; i < layers; i++) {
    list.push(`G1 Z${(0.2 * (i + 1)).toFixed(2)} F600`, 'G0 X0 Y0 F6000');
    for (const [x, y] of [
      [20, 0],
      [20, 20],
      [0, 20],
      [0, 0],
    ])
      list.push(`G1 X${x} Y${y} E0.75 F${speed * 60}`);
    list.push(row(i));
  }
  return list.join('\n');
}

describe('words', () => {
  const ours = (text: string, cut: readonly number[] = []): string[] => {
    const out: string[] = [];
    const reader = new WordReader(({ letter, code, present, value }) => {
      const words = letter >= 0 ? [`${String.fromCharCode(65 + letter)}${code}`] : [];
      for (let i = 0; i < 26; i++) if (present & (1 << i)) words.push(`${String.fromCharCode(65 + i)}${value[i]}`);
      out.push(words.sort().join(' '));
    });
    const all = bytes(text);
    let from = 0;
    for (const at of [...cut].sort((a, b) => a - b)) {
      reader.write(all.subarray(from, at));
      from = Math.max(from, at);
    }
    reader.write(all.subarray(from));
    reader.end();
    return out;
  };
  const number = fc.oneof(
    fc.integer({ min: -9999, max: 9999 }).map(String),
    fc.double({ min: -999, max: 999, noNaN: true }).map((x) => x.toFixed(5)),
  );
  const line = fc
    .tuple(
      fc.constantFrom('G0', 'G1', 'G2', 'G92', 'M104', 'M83', 'T1', ''),
      fc.uniqueArray(fc.constantFrom('X', 'Y', 'Z', 'E', 'F', 'S'), { maxLength: 5 }),
      fc.array(number, { minLength: 5, maxLength: 5 }),
      fc.constantFrom('', ' ; a comment G1 X9', ' (in brackets X3)', '\r'),
      fc.constantFrom(' ', ''),
    )
    .map(
      ([code, letters, numbers, tail, gap]) =>
        [code, ...letters.map((letter, i) => `${letter}${numbers[i]}`)].filter(Boolean).join(gap) + tail,
    );

  // gcode-parser 2.2.0, a general parser from the registry.
  test('are those of a general parser, for any line', () => {
    fc.assert(
      fc.property(fc.array(line, { minLength: 1, maxLength: 12 }), (lines) => {
        const text = lines.join('\n');
        const theirs = parseStringSync(text)
          .map(({ words }) =>
            words
              .map(([letter, value]) => `${letter}${value}`)
              .sort()
              .join(' '),
          )
          .filter(Boolean);
        expect(ours(text)).toEqual(theirs);
      }),
      { numRuns: 300 },
    );
  });

  test('do not depend on where the chunks are cut', () => {
    const text = squares(2, 60) + '\nG1 X-1.25e ; half\nM117 Layer X1 of Y2\nN7 g1 x3 y+4*71\n';
    const whole = ours(text);
    fc.assert(
      fc.property(fc.array(fc.nat(text.length), { maxLength: 30 }), (cut) => expect(ours(text, cut)).toEqual(whole)),
      { numRuns: 60 },
    );
    expect(whole.at(-1)).toBe('G1 X3 Y4');
    expect(whole.at(-2)).toBe('M117');
  });
});

describe('how long it takes', () => {
  // Even acceleration: 100 mm at 50 mm/s with 1000 mm/s², from rest to rest: d/v + v/a = 2.05 s; 1 mm never gets there: 2 √(d/a).
  test('one move, by hand', () => {
    expect(moveSeconds(100, 50, 0, 0, 1000)).toBeCloseTo(2.05, 12);
    expect(moveSeconds(1, 50, 0, 0, 1000)).toBeCloseTo(2 * Math.sqrt(1 / 1000), 12);
    expect(moveSeconds(100, 50, 50, 50, 1000)).toBeCloseTo(2, 12);
  });

  test('corners: straight on at full speed, back on itself from rest, square ones between', () => {
    expect(cornerSpeed(1, 1000, 0.02)).toBe(Infinity);
    expect(cornerSpeed(-1, 1000, 0.02)).toBe(0);
    const s = Math.SQRT1_2;
    expect(cornerSpeed(0, 1000, 0.02)).toBeCloseTo(Math.sqrt((1000 * 0.02 * s) / (1 - s)), 12);
  });

  test('a straight line in a thousand pieces takes as long as in one', () => {
    const time = (pieces: number): number => {
      let sum = 0;
      const queue = new MoveQueue((seconds) => (sum += seconds));
      for (let i = 0; i < pieces; i++) queue.add(100 / pieces, 50, 1, 0, 0, { acceleration: 1000, deviationMm: 0.02 });
      queue.stop();
      return sum;
    };
    expect(time(1)).toBeCloseTo(2.05, 9);
    expect(time(1000)).toBeCloseTo(2.05, 6);
  });

  test('no move enters faster than it can leave: an energy-like bound holds for any chain', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.01, max: 5, noNaN: true }), { minLength: 1, maxLength: 600 }), (list) => {
        let sum = 0;
        const queue = new MoveQueue((seconds) => (sum += seconds));
        for (const mm of list) queue.add(mm, 100, 1, 0, 0, { acceleration: 500, deviationMm: 0.02 });
        queue.stop();
        const whole = list.reduce((a, b) => a + b, 0);
        // Never quicker than the whole line in one move.
        expect(sum).toBeGreaterThanOrEqual(moveSeconds(whole, 100, 0, 0, 500) - 1e-6);
      }),
      { numRuns: 50 },
    );
  });
});

describe('what is asked', () => {
  // 0.75 mm of strand, 2.4053 mm², on 20 mm at 40 mm/s: 3.608 mm³/s at full speed.
  test('strand, flow and layers of squares', () => {
    const print = read(squares(10, 40));
    expect(print.layers).toHaveLength(10);
    expect(print.layers.map(({ zMm }) => Number(zMm.toFixed(2)))).toEqual([
      0.2, 0.4, 0.6, 0.8, 1, 1.2, 1.4, 1.6, 1.8, 2,
    ]);
    expect(print.strandMm).toBeCloseTo(30, 9);
    const layer = print.layers[4];
    expect(layer?.targetC).toBe(210);
    expect(layer?.meanFlow).toBeGreaterThan(3);
    expect(layer?.meanFlow).toBeLessThan(3.61);
    expect(layer?.peakFlow).toBeLessThan(3.61);
    expect(print.tools).toEqual([0]);
    expect(print.faults).toEqual([]);
  });

  test('the same print in inches, relative, with lines of its own and with volumetric strand is the same print', () => {
    const usual = read('M83\nG1 X10 Y0 Z0.2 F600\nG1 X30 Y0 E1 F1200\nG1 X30 Y10 E0.5');
    const inches = read(
      'G20\nM83\nG1 X0.393700787 Y0 Z0.00787401575 F23.6220472\nG1 X1.18110236 E0.0393700787 F47.2440945\nG1 Y0.393700787 E0.0196850394',
    );
    const relative = read('G91\nG1 X10 Z0.2 F600\nG1 X20 E1 F1200\nY10 E0.5');
    const absoluteE = read('M82\nG92 E5\nG1 X10 Y0 Z0.2 F600\nG1 X30 Y0 E6 F1200\nG92 E0\nG1 X30 Y10 E0.5');
    const volumetric = read(
      `M83\nM200 D1.75\nG1 X10 Y0 Z0.2 F600\nG1 X30 Y0 E${(Math.PI * 1.75 ** 2) / 4} F1200\nG1 X30 Y10 E${(Math.PI * 1.75 ** 2) / 8}`,
    );
    for (const other of [inches, relative, absoluteE, volumetric]) {
      expect(other.strandMm).toBeCloseTo(usual.strandMm, 6);
      expect(other.seconds).toBeCloseTo(usual.seconds, 4);
    }
    expect(usual.strandMm).toBeCloseTo(1.5, 12);
  });

  // Full circle of 10 mm radius: 62.83 mm.
  test('arcs, by centre and by radius, are as long as they are', () => {
    const line = read(`M83\nG1 Z0.2 F600\nG1 X${20 * Math.PI} Y0 E1 F1200`);
    const circle = read('M83\nG1 Z0.2 F600\nG2 X0 Y0 I10 J0 E1 F1200');
    expect(circle.strandMm).toBeCloseTo(1, 9);
    expect(circle.seconds / line.seconds).toBeGreaterThan(0.99);
    expect(circle.seconds / line.seconds).toBeLessThan(1.1);
    const drawing = read('M83\nG1 X0 Y0 Z0.2 F600\nG3 X10 Y10 R10 E1 F1200', 0).drawing;
    const mm = drawing.reduce((sum, { x1, y1, x2, y2 }) => sum + Math.hypot(x2 - x1, y2 - y1), 0);
    expect(mm).toBeCloseTo((Math.PI * 10) / 2, 1);
    // Anticlockwise from the origin to (10, 10) with the centre at (0, 10).
    for (const { x2, y2 } of drawing) expect(Math.hypot(x2, y2 - 10)).toBeCloseTo(10, 6);
    expect(read('G1 Z0.2\nM83\nG2 X50 Y0 R10 E1').faults[0]?.reason).toMatch(/radius does not reach/);
  });

  test('one piece of strand drawn back over and over is counted, wherever the retractions come from', () => {
    const dot = 'G1 E-1 F1800\nG0 X5 Y5 F6000\nG1 E1 F1800\nG1 X5.1 Y5 E0.01\n';
    const print = read(squares(6, 40, (layer) => (layer === 3 ? dot.repeat(20) : 'G1 E-1 F1800\nG1 E1')));
    expect(print.layers.map(({ samePiece }) => samePiece)).toEqual([1, 1, 1, 20, 1, 1]);
    expect(print.worstPiece).toMatchObject({ times: 20, layer: 3 });
    expect(print.retractions).toBe(25);
    expect(print.longestRetractionMm).toBeCloseTo(1, 9);
    const firmware = read(squares(2, 40, () => 'G10\nG0 X5 F6000\nG11\n'.repeat(3)));
    expect(firmware.layers.map(({ samePiece }) => samePiece)).toEqual([3, 3]);
    // Drawn back in three pieces while wiping, it is one.
    expect(read(squares(1, 40, () => 'G1 X1 E-0.4\nG1 X2 E-0.3\nG1 X3 E-0.3\nG1 E1')).retractions).toBe(1);
  });

  test('spans of time add up to the whole; a dwell is time without flow', () => {
    const print = read(squares(30, 40) + '\nG4 S90');
    const laid = print.spans.reduce((sum, { meanFlow }) => sum + meanFlow * print.spanS, 0);
    expect(laid / 2.40528).toBeCloseTo(print.strandMm, 2);
    expect(print.spans.length * print.spanS).toBeGreaterThanOrEqual(print.seconds - 1e-6);
    expect(print.spans.at(-2)?.meanFlow).toBe(0);
    expect(read('G4 P1500').seconds).toBeCloseTo(1.5, 9);
    expect(read('G4 S7200').spans.length).toBeLessThanOrEqual(600);
  });
});

describe('where it stopped', () => {
  const print = read(squares(40, 30, (layer) => (layer >= 20 && layer < 23 ? 'G1 X20 Y20 E6 F1200' : '')));

  test('by height and by minutes it is the same place, and what was asked there is told against the rest', () => {
    const byHeight = askedAt(print, { heightMm: 4.4 });
    expect(byHeight).toMatchObject({ layer: 21, zMm: expect.closeTo(4.4, 9) as number });
    const middle = (byHeight.fromMin + byHeight.toMin) / 2;
    expect(askedAt(print, { minutes: middle }).layer).toBe(21);
    expect(byHeight.flowRank).toBeGreaterThan(0.8);
    expect(askedAt(print, { heightMm: 2 }).flowRank).toBeLessThan(0.5);
    expect(askedAt(print, { heightMm: 999 }).layer).toBe(39);
    expect(() => askedAt(read('G28'), { heightMm: 1 })).toThrow(/Nothing is laid/);
  });

  test('only what was told of the stop stands at the taking-in, not what the file makes of it', () => {
    expect(toldStop({ heightMm: 4.35 })).toEqual({ failedAtMm: 4.35 });
    expect(toldStop({ minutes: 35 })).toEqual({ failedAfterMinutes: 35 });
  });

  test('more than the hot end melts, grinding retractions, or nothing unusual', () => {
    const asked = askedAt(print, { heightMm: 4.4 });
    expect(judgeStop(asked, asked.peakFlow - 0.1)).toBe('beyond');
    expect(judgeStop(asked, asked.peakFlow + 0.1)).toBe('ordinary');
    expect(judgeStop(asked, undefined)).toBe('ordinary');
    expect(judgeStop({ ...asked, samePiece: 15, pieceRank: 0.9 }, undefined)).toBe('retractions');
    expect(judgeStop({ ...asked, samePiece: 15, pieceRank: 0.1 }, undefined)).toBe('ordinary');
  });
});

test('what the file says is a result of every check that it works out, with the number that the result wants', () => {
  const asked = askedAt(read(squares(3, 40)), { heightMm: 0.4 });
  const checks = deliveredCatalogue.checks.filter(({ tool }) => tool === 'print-file');
  expect(checks.length).toBeGreaterThan(0);
  for (const check of checks) {
    const of = (verdict: Parameters<typeof stopResult>[1]) => stopResult(check, verdict, { ...asked, samePiece: 14 });
    expect(of('beyond')?.value).toBeCloseTo(asked.peakFlow, 1);
    expect(of('retractions')?.value).toBe(14);
    expect(of('ordinary')).toEqual({ result: check.results.at(-1) });
    expect(new Set(['beyond', 'retractions', 'ordinary'].map((v) => of(v as 'beyond')?.result.id)).size).toBe(3);
  }
});

test('whatever is in a file, it is read to its end', () => {
  fc.assert(
    fc.property(
      fc.uint8Array({ maxLength: 400 }),
      fc.array(fc.constantFrom('G1 X1 E1', 'G2 I1', 'T0', 'G92', 'M200 D0', 'G91', 'G1 X1e9 Y1e300 E5'), {
        maxLength: 10,
      }),
      (noise, lines) => {
        const reader = new PrintFileReader({ strandMm: 1.75 });
        reader.write(noise);
        reader.write(bytes(`\n${lines.join('\n')}`));
        const { seconds, strandMm } = reader.end();
        expect(Number.isFinite(seconds) && Number.isFinite(strandMm)).toBe(true);
      },
    ),
    { numRuns: 300 },
  );
});
