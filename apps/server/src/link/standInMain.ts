import { migrateMachine, type Machine } from '@zealous/core';
import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import type { AddressInfo } from 'node:net';
import { standIns } from './standInServer';

/**
 * The simulated printers of the demo, in one process on loopback: `standInMain FOLDER [PORT]`. Says its port and stays.
 * ZT_STANDIN_SPEED: machine seconds a second.
 */
const [folder = 'demo/machines', port = '0'] = process.argv.slice(2);
const machines = readdirSync(resolve(folder))
  .filter((name) => name.endsWith('.json'))
  .map((name) => migrateMachine(JSON.parse(readFileSync(join(resolve(folder), name), 'utf8'))) as Machine);
const { server, stop } = standIns(machines, Number(process.env['ZT_STANDIN_SPEED'] ?? 1));
server.listen(Number(port), '127.0.0.1', () => {
  process.stdout.write(`Simulated printers at tcp://127.0.0.1:${(server.address() as AddressInfo).port}\n`);
});
server.on('error', (error) => {
  process.stderr.write(`The simulated printers cannot use port ${port}: ${error.message}\n`);
  process.exit(1);
});
process.on('SIGTERM', () => {
  stop();
  process.exit(0);
});
