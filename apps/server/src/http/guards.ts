import { textFault, wellFormed } from '@zealous/core';
import type { RequestHandler } from 'express';
import { Problem } from './problem';

/** Text in a message that cannot be stored is refused with its place, before anything looks at the rest. */
export const soundBody: RequestHandler = (request, _response, next) => {
  const fault = Buffer.isBuffer(request.body) ? undefined : textFault(request.body);
  next(fault && new Problem(422, 'Not in the expected form', fault.reason, fault.path));
};

/** The same for the address: a NUL in it would reach the database. */
export const soundAddress: RequestHandler = (request, _response, next) => {
  let text: string | undefined;
  try {
    text = decodeURIComponent(request.url.replaceAll('+', ' '));
  } catch {
    text = undefined;
  }
  next(
    text !== undefined && wellFormed(text)
      ? undefined
      : new Problem(
          400,
          'Address not readable',
          'The address has characters that cannot be read. Go back to the bench.',
        ),
  );
};

const LOOPBACK = ['localhost', '127.0.0.1', '[::1]'];

/**
 * Answers only to the names under which the server is meant to be reached, and takes changes only from its own pages: a page
 * elsewhere could otherwise reach a server on loopback through a name of its own (DNS rebinding).
 *
 * @param names host names beside those of loopback
 */
export const ownHost = (names: readonly string[]): RequestHandler => {
  const known = new Set([...LOOPBACK, ...names.map((name) => name.toLowerCase())]);
  const hostOf = (host: string): string => host.toLowerCase().replace(/:\d+$/, '');
  return (request, _response, next) => {
    const { host = '', origin } = request.headers;
    if (!known.has(hostOf(host))) {
      next(
        new Problem(421, 'Not this server', 'This server does not answer to that name. Open it by its own address.'),
      );
      return;
    }
    const safe = request.method === 'GET' || request.method === 'HEAD';
    const from = origin === undefined || safe ? host : origin.replace(/^https?:\/\//, '');
    next(from === host ? undefined : new Problem(403, 'Not from here', 'Changes are taken from the own pages only.'));
  };
};
