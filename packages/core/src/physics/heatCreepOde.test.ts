import { AIR, BODIES, runHeat, type HeatFrame, type HeatTask } from './heatCreep';

interface OdexSolver {
  absoluteTolerance: number;
  relativeTolerance: number;
  maxSteps: number;
  solve: (
    rates: (x: number, y: number[]) => number[],
    from: number,
    y: number[],
    to: number,
  ) => { readonly y: readonly number[] };
}
// Its types are its sources, which do not hold by this project's rules: what is used of it is said here.
const { Solver } = jest.requireActual<{ Solver: new (n: number) => OdexSolver }>('odex');

/**
 * The same hot end, written down once more as heat flows between pieces, for a general solver of ordinary differential equations: ODEX
 * (Hairer, Nørsett and Wanner, Solving Ordinary Differential Equations I: Gragg, Bulirsch and Stoer's extrapolation). The problem is
 * stiff (pieces of half a millimetre settle in milliseconds, the sink in minutes), so an explicit method takes many small steps; it gets
 * there, and shares nothing with the implicit one.
 */
function byOdex(
  { body, ambientC, tauS, strandMm }: HeatTask,
  start: readonly number[],
  seconds: number,
): readonly number[] {
  const strandM2 = (Math.PI * (strandMm / 1000) ** 2) / 4;
  const neck = { count: 8, mm: body.neckMm / 8, area: body.neckAreaMm2 / 1e6, k: body.neckK };
  const sink = { count: 40, mm: body.sinkMm / 40, area: body.sinkAreaMm2 / 1e6, k: body.sinkK };
  const pieces = [...Array<typeof neck>(neck.count).fill(neck), ...Array<typeof sink>(sink.count).fill(sink)];
  const n = pieces.length;
  const holds = pieces.map((p) => (p === neck ? 3.9e6 * p.area * (p.mm / 1000) : body.sinkJPerK / sink.count));
  const strandHolds = pieces.map((p) => 2.2e6 * strandM2 * (p.mm / 1000));
  const resist = pieces.map((p) => p.mm / 1000 / (p.k * p.area));
  /** Heat from the air's side and between neighbours, W; y is the block, then metal, then strand. */
  const rates = (_: number, y: number[]): number[] => {
    const block = y[0] as number;
    const dy = new Array<number>(1 + 2 * n).fill(0);
    const metal = (i: number): number => (i < 0 ? block : (y[1 + i] as number));
    const strand = (i: number): number => (i < 0 ? block : (y[1 + n + i] as number));
    let out = 0;
    for (let i = 0; i < n; i++) {
      const p = pieces[i] as typeof neck;
      const half = (j: number): number => (j < 0 ? 0 : (resist[j] as number) / 2);
      const up = (metal(i - 1) - metal(i)) / (half(i - 1) + half(i));
      if (i === 0) out = up;
      const on = i + 1 < n ? (metal(i) - metal(i + 1)) / (half(i) + half(i + 1)) : 0;
      const across = body.wallToStrand * (p.mm / 1000) * (metal(i) - strand(i));
      const air = p === neck ? 0 : AIR.dead * (body.sinkSurfaceMm2 / 1e6 / sink.count) * (metal(i) - ambientC);
      dy[1 + i] = (up - on - across - air) / (holds[i] as number);
      const along = (j: number): number => (0.15 * strandM2) / ((pieces[j] as typeof neck).mm / 1000);
      const below = along(i) * (strand(i - 1) - strand(i));
      const above = i + 1 < n ? along(i + 1) * (strand(i) - strand(i + 1)) : 0;
      dy[1 + n + i] = (below - above + across) / (strandHolds[i] as number);
    }
    dy[0] = (-(body.blockJPerK / tauS) * (block - ambientC) - out) / body.blockJPerK;
    return dy;
  };
  const solver = new Solver(1 + 2 * n);
  solver.absoluteTolerance = 1e-5;
  solver.relativeTolerance = 1e-5;
  solver.maxSteps = 1_000_000;
  return solver.solve(rates, 0, [...start], seconds).y;
}

const SECONDS = 60;

test.each(['all-metal', 'one-piece'] as const)(
  'a minute after switching off hot with a dead fan, %s: as a general solver has it, to half a degree in steps of a second',
  (kind) => {
    const task: HeatTask = {
      body: BODIES[kind],
      ambientC: 22,
      targetC: 210,
      tauS: 180,
      strandMm: 1.75,
      phases: [{ seconds: SECONDS, heater: 'off', fan: 'dead' }],
    };
    const of = ({ blockC, metalC, strandC }: HeatFrame): readonly number[] => [blockC, ...metalC, ...strandC];
    const ends = (stepS: number): readonly HeatFrame[] => runHeat({ ...task, stepS }).frames;
    const theirs = byOdex(task, of(ends(1)[0] as HeatFrame), SECONDS);
    const worst = (stepS: number): number => {
      const ours = of(ends(stepS).at(-1) as HeatFrame);
      expect(ours).toHaveLength(theirs.length);
      return Math.max(...ours.map((t, i) => Math.abs(t - (theirs[i] ?? 0))));
    };
    const [second, tenth] = [worst(1), worst(0.1)];
    expect(second).toBeLessThan(0.5);
    // Backward Euler is of first order: a tenth of the step, about a tenth of the error.
    expect(tenth).toBeLessThan(0.15 * second);
  },
);
