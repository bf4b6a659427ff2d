import { PrintFileReader, type DrawnLine, type PrintFile, type ReadOptions } from '@zealous/core';
import { expose } from 'comlink';

/** Bytes that are read at once. */
const CHUNK = 1024 * 1024;

const piece = async (file: Blob, at: number): Promise<Uint8Array> =>
  new Uint8Array(await file.slice(at, at + CHUNK).arrayBuffer());

const service = {
  /** Reads a file in pieces, never as a whole; says how far it is. */
  async read(file: Blob, options: ReadOptions, onProgress: (share: number) => void): Promise<PrintFile> {
    const reader = new PrintFileReader(options);
    for (let at = 0; at < file.size; at += CHUNK) {
      reader.write(await piece(file, at));
      onProgress(Math.min(1, (at + CHUNK) / file.size));
    }
    return reader.end();
  },
  /** The lines of one layer; the file is read as far as it goes. */
  async draw(file: Blob, strandMm: number, layer: number): Promise<readonly DrawnLine[]> {
    const reader = new PrintFileReader({ strandMm, draw: layer });
    for (let at = 0; at < file.size && !reader.drawn; at += CHUNK) reader.write(await piece(file, at));
    return reader.drawing;
  },
};

export type PrintService = typeof service;

expose(service);
