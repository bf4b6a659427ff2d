import fc from 'fast-check';
import { deliveredCatalogue, materialOf } from '../catalogue/index';
import { routeOf, type Route } from '../path/route';
import { FAMILIES, machineOfFamily } from '../path/families';
import { dunlin, whelk } from '../testing/machines';
import { buckling, eulerForce } from './buckling';
import { consistency, equivalentBore, nozzlePressure, wallRate } from './nozzleFlow';
import { mostFlow, pathForces, readSpans, type Bearing } from './pathForces';

const WATERY = { at100PaS: 300, thinning: 1 };

describe('nozzle', () => {
  // Hagen and Poiseuille: 8 μ L Q / (π r⁴) with 300 Pa·s, r 0.2 mm, land 0.6 mm, 5.4 mm³/s; worked by hand.
  test('a melt that does not thin, in a round land: 1.5470 MPa, 3.721 N on a strand of 1.75 mm', () => {
    const mpa = nozzlePressure(5.4, { boreMm: 0.4, landMm: 0.6 }, WATERY);
    expect(mpa).toBeCloseTo(1.547, 4);
    expect((mpa * Math.PI * 1.75 ** 2) / 4).toBeCloseTo(3.721, 3);
  });

  // Rabinowitsch: the wall's rate is (3n + 1)/(4n) times 4Q/(πr³); at n = 1 that is 859.4 1/s here.
  test('shear rate at the wall, and what a melt that thins takes, by the integral over the bore', () => {
    expect(wallRate(5.4, 0.2, 1)).toBeCloseTo((4 * 5.4) / (Math.PI * 0.008), 6);
    const melt = { at100PaS: 400, thinning: 0.45 };
    const mpa = nozzlePressure(5.4, { boreMm: 0.4, landMm: 0.6 }, melt);
    // Independent: with that pressure drop the velocity profile of a power-law fluid, summed over rings, carries the flow.
    const k = consistency(melt);
    const drop = (mpa * 1e6) / 0.6; // Pa per mm
    let flow = 0;
    const rings = 20000;
    for (let i = 0; i < rings; i++) {
      const r = ((i + 0.5) / rings) * 0.2;
      const rate = ((drop * r) / (2 * k)) ** (1 / melt.thinning);
      // Q = ∫ π r² |dv/dr| dr, by parts with no slip at the wall.
      flow += Math.PI * r ** 2 * rate * (0.2 / rings);
    }
    expect(flow).toBeCloseTo(5.4, 3);
  });

  test('the cone is the limit of short lands that grow narrower', () => {
    const melt = { at100PaS: 400, thinning: 0.45 };
    const halfRad = Math.PI / 6;
    const straight = nozzlePressure(5.4, { boreMm: 0.4, landMm: 0.6 }, melt);
    const cone = nozzlePressure(5.4, { boreMm: 0.4, landMm: 0.6, cone: { halfRad, fromMm: 2 } }, melt) - straight;
    let sum = 0;
    const slices = 20000;
    for (let i = 0; i < slices; i++) {
      const boreMm = 0.4 + ((i + 0.5) / slices) * 1.6;
      sum += nozzlePressure(5.4, { boreMm, landMm: 0.8 / slices / Math.tan(halfRad) }, melt);
    }
    expect(cone / sum).toBeCloseTo(1, 4);
  });

  // Half the flow at the same push: 0.4 mm · 0.5^(1/4) and 0.5^(1/5.5).
  test('a bore that lets half through', () => {
    expect(equivalentBore(0.4, 0.5, 1)).toBeCloseTo(0.3364, 4);
    expect(equivalentBore(0.4, 0.5, 0.4)).toBeCloseTo(0.35264, 5);
    // And the pressures agree: the narrower bore needs at half the flow what the wide one needs at all of it.
    const melt = { at100PaS: 400, thinning: 0.4 };
    const narrow = { boreMm: equivalentBore(0.4, 0.5, 0.4), landMm: 0.6 };
    expect(nozzlePressure(2.7, narrow, melt)).toBeCloseTo(nozzlePressure(5.4, { boreMm: 0.4, landMm: 0.6 }, melt), 9);
  });

  test('what cannot be is refused', () => {
    expect(() => nozzlePressure(5, { boreMm: 0, landMm: 1 }, WATERY)).toThrow(/bore/);
    expect(() => nozzlePressure(-1, { boreMm: 0.4, landMm: 1 }, WATERY)).toThrow(/flow/);
    expect(() => equivalentBore(0.4, 0, 1)).toThrow(/What comes/);
    expect(nozzlePressure(0, { boreMm: 0.4, landMm: 1 }, WATERY)).toBe(0);
  });
});

describe('buckling', () => {
  // π² E I / L² with I = 0.46039 mm⁴ at 1.75 mm: E 26 MPa, 8 mm 1.846 N, 2 mm 29.53 N (the formula alone; too short for Euler).
  test('Euler’s load of a soft strand', () => {
    expect(eulerForce(1.75, 8, 26)).toBeCloseTo(1.846, 3);
    expect(eulerForce(1.75, 2, 26)).toBeCloseTo(29.53, 2);
  });

  test('Euler while slender, Johnson below, and at the transition both say half the yield stress', () => {
    const strand = { diameterMm: 1.75, stiffnessMPa: 26, yieldMPa: 5 };
    expect(buckling({ ...strand, gapMm: 8 }).by).toBe('Euler');
    const short = buckling({ ...strand, gapMm: 2 });
    expect(short.by).toBe('Johnson');
    expect(short.forceN).toBeLessThan(5 * 2.4053);
    const at = (short.transition * 1.75) / 4;
    const [below, above] = [at - 1e-6, at + 1e-6].map((gapMm) => buckling({ ...strand, gapMm }));
    expect([below?.by, above?.by]).toEqual(['Johnson', 'Euler']);
    expect(below?.forceN).toBeCloseTo((2.40528 * 5) / 2, 3);
    expect(above?.forceN).toBeCloseTo(below?.forceN ?? 0, 4);
  });
  test('held ends bear four times as much while slender', () => {
    const strand = { diameterMm: 1.75, stiffnessMPa: 26, yieldMPa: 500, gapMm: 20 };
    expect(buckling({ ...strand, ends: 0.5 }).forceN / buckling(strand).forceN).toBeCloseTo(4, 9);
  });
});

const pla = materialOf(deliveredCatalogue, 'PLA');
const bearing = (rest: Partial<Bearing> = {}): Bearing => ({
  strandMm: 1.75,
  melt: { at100PaS: pla.meltPaS ?? 0, thinning: pla.thinning ?? 1 },
  stiffnessMPa: pla.stiffnessMPa ?? 0,
  yieldMPa: pla.yieldMPa ?? 0,
  nozzle: { boreMm: 0.4, landMm: 0.6 },
  gapMm: 5,
  gripN: 60,
  ...rest,
});

/** A path by hand: spool 1 N, a PTFE tube of half a turn, gears, a tube of a whole turn, nozzle. */
const byHand: Route = {
  lane: 'a',
  stops: (
    [
      ['spool', { dragN: 1 }],
      ['tube', { bendRad: Math.PI, boreMm: 2 }],
      ['extruder', {}],
      ['tube', { bendRad: 2 * Math.PI, boreMm: 2 }],
      ['nozzle', {}],
      ['job', {}],
    ] as const
  ).map(([kind, params], index) => ({
    index,
    run: 'a',
    fromMm: index,
    toMm: index + 1,
    station: {
      id: `${kind}${index}`,
      kind,
      name: kind,
      params,
      access: {},
    } as unknown as Route['stops'][number]['station'],
  })),
};

describe('along the path', () => {
  test('by hand: the pull is 1 · e^0.1π, the push what the nozzle needs · e^0.2π; turning round loses 0.25 mm a radian', () => {
    const found = pathForces(byHand, 5.4, bearing());
    expect(found.pullN).toBeCloseTo(1.3691, 4);
    expect(found.pushN).toBeCloseTo(found.nozzleN * 1.8745, 3);
    expect(found.slackMm).toBeCloseTo(0.25 * 2 * Math.PI, 9);
    expect(found.stations.map(({ stop }) => stop.station.kind)).toEqual(['spool', 'tube', 'tube', 'nozzle']);
    expect(found.worst?.stop.station.kind).toBe('tube');
    const soft = pathForces(byHand, 5.4, bearing({ stiffnessMPa: 26, yieldMPa: 5, gapMm: 8 }));
    expect(soft.weakest).toBe('buckling');
    expect(soft.margin).toBeCloseTo(soft.buckles.forceN / soft.pushN, 9);
    expect(found.weakest).toBe('grip');
    expect(found.margin).toBeCloseTo(60 / (found.pullN + found.pushN), 9);
  });

  test('on every family, what the stations add makes up what the gears must do, and more flow asks for more', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FAMILIES), fc.double({ min: 0.5, max: 20, noNaN: true }), ({ id }, flow) => {
        const route = routeOf(machineOfFamily(id, 'm', 'M'));
        const found = pathForces(route, flow, bearing());
        const sum = found.stations.reduce((all, { addsN }) => all + addsN, 0);
        expect(sum).toBeCloseTo(found.pullN + found.pushN, 6);
        expect(pathForces(route, flow * 1.1, bearing()).pushN).toBeGreaterThan(found.pushN);
      }),
      { numRuns: 60 },
    );
  });

  test('the flow at which something gives way: there it just holds', () => {
    const route = routeOf(whelk);
    const weak = bearing({ gripN: 8 });
    const flow = mostFlow(route, weak);
    expect(flow).toBeGreaterThan(1);
    expect(pathForces(route, flow, weak).margin).toBeCloseTo(1, 3);
    expect(mostFlow(route, bearing({ gripN: 0.1 }))).toBe(0);
    expect(mostFlow(route, bearing({ gripN: 1e6, stiffnessMPa: 1e6, yieldMPa: 1e5 }))).toBe(Infinity);
  });

  test('a path without gears is refused', () => {
    expect(() => pathForces({ lane: 'a', stops: [] }, 1, bearing())).toThrow(/no gears/);
  });
});

describe('gauge', () => {
  test('two readings say in which stretch it drags', () => {
    // A spool that drags is not held against the tube behind it.
    const spool = readSpans(byHand, [
      { station: 'tube1', n: 4 * 1.3691 },
      { station: 'spool0', n: 4 },
    ]);
    expect(spool.map(({ from, to, expectedN }) => [from, to, Number(expectedN.toFixed(3))])).toEqual([
      [undefined, 'spool', 1],
      ['spool', 'tube', 5.476],
    ]);
    expect(spool[0]?.excess).toBeCloseTo(3 / 0.35, 6);
    expect(spool[1]?.excess).toBeCloseTo(0, 3);
    expect(spool[1]?.friction).toBeCloseTo(0.1, 4);
    // A tube that grips: friction 0.4 over half a turn.
    const tube = readSpans(byHand, [
      { station: 'spool0', n: 1 },
      { station: 'tube1', n: Math.exp(0.4 * Math.PI) },
    ]);
    expect(tube[0]?.excess).toBeCloseTo(0, 9);
    expect(tube[1]?.excess).toBeGreaterThan(3);
    expect(tube[1]?.friction).toBeCloseTo(0.4, 9);
  });

  test('a station behind the gears, or a reading below nothing, is refused', () => {
    const nozzle = routeOf(dunlin).stops.find(({ station }) => station.kind === 'nozzle')?.station.id ?? '';
    expect(() => readSpans(routeOf(dunlin), [{ station: nozzle, n: 1 }])).toThrow(/ahead of the gears/);
    expect(() => readSpans(byHand, [{ station: 'spool0', n: -1 }])).toThrow(/below zero/);
  });
});
