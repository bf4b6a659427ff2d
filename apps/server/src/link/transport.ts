import { connect } from 'node:net';
import type { Duplex } from 'node:stream';

/** A stand-in’s address, set by the start command. */
export const standInAt = (): string | undefined => process.env['ZT_STANDIN'];

const CONNECT_MS = 4_000;

function overTcp(host: string, port: number): Promise<Duplex> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port, noDelay: true });
    const timer = setTimeout(() => socket.destroy(new Error('nobody answered there in time')), CONNECT_MS);
    socket.once('connect', () => {
      clearTimeout(timer);
      socket.removeListener('error', reject);
      resolve(socket);
    });
    socket.once('error', reject);
    socket.once('close', () => clearTimeout(timer));
  });
}

async function overSerial(path: string, baudRate: number): Promise<Duplex> {
  // Only where a device is: the package brings code of the machine's own kind, and may be missing.
  const { SerialPort } = await import('serialport').catch(() => {
    throw new Error('this server has no package for serial ports; run "npm ci" with optional packages');
  });
  return new Promise((resolve, reject) => {
    const port = new SerialPort({ path, baudRate, autoOpen: false });
    port.open((error) => (error ? reject(error) : resolve(port)));
  });
}

/** Opens the line to an address. @throws Error in words when it cannot be opened */
export async function openLine(address: string): Promise<Duplex> {
  const target = address === 'stand-in' ? standInAt() : address;
  if (target === undefined) throw new Error('no simulated printer runs beside this server');
  const serial = /^serial:(.+)@(\d+)$/.exec(target);
  if (serial?.[1]) return overSerial(serial[1], Number(serial[2]));
  const tcp = /^tcp:\/\/(.+):(\d+)$/.exec(target);
  if (!tcp?.[1]) throw new Error(`"${target}" is no address of a line`);
  return overTcp(tcp[1].replace(/^\[|\]$/g, ''), Number(tcp[2]));
}
