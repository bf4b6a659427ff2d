import { deliveredCatalogue, materialOf } from '../catalogue/index';
import { LINE_SIGNS } from '../catalogue/lineSigns';
import { machineOfFamily } from '../path/families';
import { laneRuns, routeOf } from '../path/route';
import type { Bench } from '../bench/state';
import { fitCooling } from '../physics/cooling';
import { lineRefusal } from './guard';
import { checksumOf, commandsOf, numbered, parseReply, takenApart } from './protocol';
import { heatSign, lineCheck, resultOfSign, sensorSign, stepsSign } from './signs';
import { StandIn } from './standIn';
import { SOUND } from './standInNature';

const machine = machineOfFamily('bowden-open', 'm', 'M');
const route = routeOf(machine, laneRuns(machine)[0]?.id);
const pla = materialOf(deliveredCatalogue, 'PLA');
const hot: Bench = { temperatureC: 208, power: 'on', off: new Set(), targetC: 208 };
const half = (): number => 0.5;
const printer = (nature = SOUND): StandIn => new StandIn(machine, nature, half);

describe('The line protocol', () => {
  it('numbers lines and adds the XOR checksum', () => {
    // The community's documentation shows "N3 T0*57" (from memory).
    expect(numbered(3, 'T0')).toBe('N3 T0*57');
    expect(checksumOf('N3 T0')).toBe(57);
    expect(takenApart('N3 T0*57')).toEqual({ n: 3, command: 'T0' });
    expect(takenApart('N3 T1*57')).toBeUndefined();
  });

  it.each([
    ['ok T:201.3 /210.0 B:60.0 /60.0 @:127', { kind: 'ok', report: { temperatureC: 201.3, targetC: 210 } }],
    ['ok', { kind: 'ok' }],
    [' T:25.0 /0.0', { kind: 'report', report: { temperatureC: 25, targetC: 0 } }],
    ['Resend: 12', { kind: 'resend', n: 12 }],
    ['rs N12', { kind: 'resend', n: 12 }],
    ['echo:busy: processing', { kind: 'busy' }],
    ['Error:Printer halted. kill() called!', { kind: 'halted' }],
    ['Error:MINTEMP', { kind: 'error', text: 'MINTEMP' }],
    ['filament: TRIGGERED', { kind: 'switch', name: 'filament', closed: true }],
    ['x_min: open', { kind: 'switch', name: 'x_min', closed: false }],
    ['X:0.00 Y:1.00 Z:2.00 E:33.50 Count X:0', { kind: 'position', e: 33.5 }],
    ['echo:  M92 X80.00 Y80.00 Z400.00 E415.00', { kind: 'steps', e: 415 }],
    ['o T:2#1', { kind: 'odd', text: 'o T:2#1' }],
  ])('reads %s', (line, said) => {
    expect(parseReply(line)).toEqual(said);
  });
});

describe('What must not be asked of a machine on the line', () => {
  const refused = (bench: Partial<Bench>, intent: Parameters<typeof lineRefusal>[4]): string | undefined =>
    lineRefusal(machine, route, pla, { ...hot, ...bench }, intent);

  it('heat beyond the path, with the heater away, or near solvent', () => {
    expect(refused({}, { do: 'target', c: 208 })).toBeUndefined();
    expect(refused({}, { do: 'target', c: machine.heat.limitC + 1 })).toMatch(/takes \d+ °C for long/);
    const heater = machine.parts.find(({ heats }) => heats)?.id ?? '';
    expect(refused({ off: new Set([heater]) }, { do: 'target', c: 200 })).toMatch(/It needs/);
    expect(refused({ wet: new Set(['nozzle']) }, { do: 'target', c: 200 })).toMatch(/dry first/);
    expect(refused({ power: 'off' }, { do: 'target', c: 200 })).toMatch(/switched on: recorded as off/);
    // Zero is always allowed.
    expect(refused({ off: new Set([heater]), wet: new Set(['nozzle']) }, { do: 'target', c: 0 })).toBeUndefined();
  });

  it('feeding into a cold nozzle or out of an open path', () => {
    const feed = { do: 'feed', mm: 100, mmPerS: 5 } as const;
    expect(refused({}, feed)).toBeUndefined();
    expect(refused({ temperatureC: 150 }, feed)).toMatch(/cold nozzle/);
    const joint = machine.parts.find(({ severs }) => severs)?.id ?? '';
    expect(joint).not.toBe('');
    expect(refused({ off: new Set([joint]) }, feed)).toMatch(/lies open/);
    expect(refused({}, { do: 'feed', mm: 5000, mmPerS: 5 })).toMatch(/1500 mm/);
    expect(refused({}, { do: 'feed', mm: 10, mmPerS: 60 })).toMatch(/mm\/s/);
  });
});

describe('What a machine on its line says of a check', () => {
  it('is one of the results of that check, for every sign', () => {
    for (const line of ['sensor', 'temperature'] as const) {
      const check = deliveredCatalogue.checks.find((one) => one.byLine === line);
      const signs = line === 'sensor' ? LINE_SIGNS.slice(0, 5) : LINE_SIGNS.slice(5, 8);
      for (const sign of signs) expect(check && resultOfSign(check, sign)).toBeDefined();
    }
    expect(lineCheck(deliveredCatalogue, machine, undefined, 'feed')?.check.quantity?.unit).toBe('mm');
  });

  it('comes from readings with the strand and without', () => {
    const [t, f] = [
      [true, true],
      [false, false],
    ];
    expect(sensorSign(t, f)).toBe('follows');
    expect(sensorSign(t, t)).toBe('always-present');
    expect(sensorSign(f, f)).toBe('always-absent');
    expect(sensorSign([true, false], f)).toBe('flickers');
    expect(sensorSign(f, t)).toBe('inverted');
    expect(sensorSign([true, false], t)).toBe('flickers');
    expect(stepsSign(415, 413)).toBeUndefined();
    expect(stepsSign(415, 400)).toBe('steps-differ');
    expect(heatSign({ jumpsAtS: [3], drops: [] })).toBe('jumps');
    expect(heatSign({ jumpsAtS: [], drops: [{ atS: 1, deepC: 9 }] })).toBe('drops');
    expect(heatSign({ jumpsAtS: [], drops: [] })).toBe('steady');
  });
});

describe('The simulated printer', () => {
  const run = (of: StandIn, commands: readonly string[], seconds = 60): readonly string[] => {
    const said = commands.flatMap((command) => [...of.receive(command)]);
    for (let t = 0; t < seconds; t += 0.5) said.push(...of.tick(0.5));
    return said;
  };

  it('heats to its target, feeds what its fault lets through, and answers when it has come to rest', () => {
    const weak = printer({ ...SOUND, fed: 0.84 });
    run(weak, ['M104 S208'], 400);
    expect(weak.temperatureC).toBeCloseTo(208, 1);
    const said = run(weak, commandsOf({ do: 'feed', mm: 100, mmPerS: 5 }), 30);
    expect(said.filter((line) => line === 'ok')).toHaveLength(3);
    expect(said).toContain('echo:at the bench: the strand moved 84.0 mm');
    expect(said.indexOf('echo:busy: processing')).toBeGreaterThan(0);
  });

  it('feeds nothing cold, and stops dead at the emergency stop', () => {
    expect(run(printer(), ['G1 E10 F300'], 5)).toEqual(['echo: cold extrusion prevented', 'ok']);
    const one = printer();
    run(one, ['M104 S208'], 400);
    expect(one.receive('M112')).toEqual(['Error:Printer halted. kill() called!']);
    expect(one.target).toBe(0);
    expect(one.receive('M105')).toEqual([]);
  });

  it('asks again for a line that came garbled or out of turn', () => {
    const one = printer();
    expect(one.receive(numbered(1, 'M105')).at(-1)).toMatch(/^ok T:/);
    expect(one.receive('N2 M1O5*39').slice(-2)).toEqual(['Resend: 2', 'ok']);
    expect(one.receive(numbered(3, 'M105')).slice(-2)).toEqual(['Resend: 2', 'ok']);
    expect(one.receive(numbered(2, 'M105')).at(-1)).toMatch(/^ok T:/);
  });

  it('cools so that its own time constant is found from what it reports', () => {
    // Newton's law of cooling; the fit is tested against a general optimiser elsewhere.
    const one = printer({ ...SOUND, coolFactor: 1.3 });
    run(one, ['M104 S200'], 400);
    one.receive('M104 S0');
    const readings = Array.from({ length: 12 }, (_, i) => {
      for (let t = 0; t < 20; t++) one.tick(1);
      const report = parseReply(one.receive('M105')[0] ?? '');
      return { atS: 20 * (i + 1), temperatureC: report.kind === 'ok' ? (report.report?.temperatureC ?? 0) : 0 };
    });
    expect(fitCooling(machine.heat, readings).tauS / machine.heat.coolTauS).toBeCloseTo(1.3, 1);
  });

  it('sets its target to zero by itself when nothing is fed, where its firmware can', () => {
    const able = printer();
    expect(able.receive('M86 S300')).toEqual(['ok']);
    run(able, ['M104 S200'], 250);
    expect(able.target).toBe(200);
    expect(run(able, [], 100)).toContain('echo:Hotend Idle Timeout');
    expect(able.target).toBe(0);
    expect(printer({ ...SOUND, idleOff: false }).receive('M86 S300')[0]).toMatch(/Unknown command/);
  });

  it('reports the sensor as its fault has it', () => {
    const sensor = (of: StandIn): unknown =>
      of
        .receive('M119')
        .map(parseReply)
        .find((reply) => reply.kind === 'switch' && reply.name === 'filament');
    const sound = printer();
    expect(sensor(sound)).toMatchObject({ closed: true });
    sound.receive('; stand-in strand out');
    expect(sensor(sound)).toMatchObject({ closed: false });
    const stuck = printer({ ...SOUND, sensor: 'always-present' });
    stuck.receive('; stand-in strand out');
    expect(sensor(stuck)).toMatchObject({ closed: true });
  });

  it('keeps steps that were stored', () => {
    const one = printer({ ...SOUND, stepsOff: 0.9 });
    const before = parseReply(one.receive('M92')[0] ?? '');
    expect(before).toMatchObject({ kind: 'steps' });
    for (const command of commandsOf({ do: 'store-steps', stepsPerMm: 400 })) one.receive(command);
    expect(one.stored).toBe(400);
  });
});
