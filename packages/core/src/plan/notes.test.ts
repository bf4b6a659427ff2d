import { partWith } from '../bench/closure';
import { deliveredCatalogue as catalogue } from '../catalogue/index';
import { machineOfFamily } from '../path/families';
import { routeOf } from '../path/route';
import { dunlin } from '../testing/machines';
import { cautionsOf } from '../catalogue/cautions';
import { closingNotes, lookMeanwhile, openingNotes } from './notes';
import { stepOf } from './steps';

const bolted = machineOfFamily('feeder-enclosed', 'bolted', 'Bolted');
const heads = machineOfFamily('two-heads', 'heads', 'Heads');
const belt = machineOfFamily('direct-belt', 'belt', 'Belt');
const opening = (machine: typeof dunlin, id: string): string => openingNotes(machine, partWith(machine, id)).join(' ');
const closing = (machine: typeof dunlin, id: string): string => closingNotes(machine, partWith(machine, id)).join(' ');

test('before the first screw: what may drop out, plugs, what hides, what is alike, which side', () => {
  expect(opening(dunlin, 'sensor-cover')).toMatch(/May drop out: lever spring/);
  expect(opening(bolted, 'hot-end')).toMatch(/Plugs, off and unplugged.*Heater, Thermistor, Hot-end fan/);
  expect(opening(bolted, 'hot-end')).toMatch(/ball end only: 2 × M3 screw/);
  expect(opening(heads, 'sensor-board-left')).toMatch(/Hidden below the connector's tang/);
  expect(opening(heads, 'sensor-board-left')).toMatch(/this is the left side/);
  expect(opening(dunlin, 'buffer-cover')).toMatch(/Almost the same length: A is 10 mm, B is 6 mm/);
  expect(opening(belt, 'front-cover')).toMatch(/stays on its cable/);
  expect(opening(belt, 'front-cover')).toMatch(/before the last screw/);
  expect(opening(dunlin, 'front-cover')).not.toMatch(/May drop out/);
});

test('before it is closed: the trial half assembled, nuts straight, plastic, plugs in their own sockets', () => {
  expect(closing(dunlin, 'sensor-cover')).toMatch(/Half assembled: Pass a strand/);
  expect(closing(dunlin, 'sensor-cover')).toMatch(/In plastic, stop when it stops/);
  expect(closing(belt, 'hot-end')).toMatch(/square nut straight before its screw bites/);
  expect(closing(belt, 'hot-end')).toMatch(/Hot end straight/);
  expect(closing(bolted, 'hot-end')).toMatch(/own socket.*Heater, Thermistor/);
});

test('what lies open is looked at in passing, from the catalogue’s own looks', () => {
  expect(lookMeanwhile(dunlin, catalogue, 'extruder-cover').join(' ')).toMatch(/teeth, idler arm/);
  expect(lookMeanwhile(dunlin, catalogue, 'no-such-part')).toEqual([]);
});

test('cautions follow from tools, lost parts, plugs, pushes, heat and PTFE, each once', () => {
  expect(cautionsOf(catalogue, ['sharp'], ['tube-cutter'], ['heat', 'heat'])).toEqual(['hot', 'sharp']);
  expect(cautionsOf(catalogue, ['no-such'], ['no-such-tool'], [])).toEqual([]);
  const step = (id: string, machine = bolted) =>
    stepOf(id, { machine, catalogue, route: routeOf(machine), material: 'PLA' });
  expect(step('open:hot-end').cautions).toEqual(expect.arrayContaining(['unplug', 'hot', 'small-parts']));
  expect(step('heat:208', belt).cautions).toEqual(['hot', 'ptfe']);
  expect(step('heat:208').cautions).toEqual(['hot']);
  expect(step('rung:nozzle:tip-particles:hotter-push', belt).cautions).toEqual(
    expect.arrayContaining(['support-head', 'ptfe', 'hot']),
  );
  expect(step('off').cautions).toEqual(['unplug']);
});

test('a step says what it changes, in its order', () => {
  const acts = (id: string, machine = bolted) =>
    stepOf(id, { machine, catalogue, route: routeOf(machine), material: 'PLA' }).acts.map((act) => act.do);
  expect(acts('open:hot-end')).toEqual(['unplug', 'off']);
  expect(acts('close:hot-end')).toEqual(['on', 'plug']);
  expect(acts('act:break:break-plug:solvent-soak:soak')).toEqual(['touch', 'wet']);
  expect(acts('rung:nozzle:tip-particles:hotter-push')).toEqual(['push', 'target']);
  expect(acts('rung:nozzle:tip-particles:hot-pull', dunlin)).toEqual(['strand', 'target', 'off', 'touch']);
  expect(acts('nothing-known')).toEqual([]);
});
