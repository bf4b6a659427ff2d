import { MAX_BODY, type Problem as ProblemBody } from '@zealous/contracts';
import { FormatError } from '@zealous/core/formats';
import { RefusedEvent } from '@zealous/core';
import type { ErrorRequestHandler, RequestHandler } from 'express';

/** An answer that says what was wrong and what to do; sent as RFC 9457 problem details. */
export class Problem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    message: string,
    readonly path?: string,
    /** What the answer carries beside the usual, for example both of two that differ. */
    readonly more: Readonly<Record<string, unknown>> = {},
  ) {
    super(message);
    this.name = 'Problem';
  }
}

/** Too much waits already. */
export class Busy extends Problem {
  constructor() {
    super(503, 'Busy', 'The server has too much to do at once. It is tried again in a moment; nothing is lost.');
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'Not found', `There is no such ${what}. It may have been removed; go back to the bench.`);

/** Faults of the body reader carry a type of their own. */
interface BodyFault extends Error {
  readonly type?: string;
  readonly status?: number;
  /** Bytes that the body might have. */
  readonly limit?: number;
}

/** Faults of the database carry a code: five characters of PostgreSQL's appendix A, or the system's own. */
interface StoreFault extends Error {
  readonly code?: string;
  readonly driverError?: { readonly code?: string };
}

const AWAY = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOENT',
  'ETIMEDOUT',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08003',
  '08001',
  '25006',
]);
const CROWDED = new Set(['53300', '53200', '57014', '55P03', '40001', '40P01']);

/** The database is away, has too much to do, or is full: each said as what it is, and tried again by whoever asked. */
export function storeProblem({ code, driverError, message }: StoreFault): Problem | undefined {
  const is = driverError?.code ?? code ?? '';
  if (is === '53100')
    return new Problem(
      507,
      'No room left',
      'The disk of the server is full. Make room on it, then it goes on by itself; what is not stored stays on the phone.',
    );
  if (AWAY.has(is) || /Connection terminated|Client has encountered a connection error/i.test(message))
    return new Problem(
      503,
      'Database away',
      'The database does not answer. It is tried again in a moment; nothing is lost.',
    );
  if (CROWDED.has(is) || /timeout exceeded when trying to connect|Query read timeout/i.test(message)) return new Busy();
  return undefined;
}

const sizeWords = (bytes: number | undefined): string => {
  if (bytes === undefined) return MAX_BODY;
  return bytes >= 1024 * 1024 ? `${(bytes / 1024 / 1024).toFixed(0)} MB` : `${Math.round(bytes / 1024)} kB`;
};

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof RefusedEvent)
    return new Problem(409, 'The order does not take this entry', error.message, error.path);
  if (error instanceof FormatError) return new Problem(422, 'Not in the expected form', error.reason, error.path);
  const fault = error as BodyFault;
  const known = storeProblem(error as StoreFault);
  if (known) return known;
  if (fault.type === 'entity.too.large')
    return new Problem(413, 'Too large', `This may have ${sizeWords(fault.limit)} at most. Send less at once.`);
  if (fault.type === 'entity.parse.failed')
    return new Problem(400, 'Not JSON', 'The message could not be read as JSON.');
  if (fault.status !== undefined && fault.status >= 400 && fault.status < 500)
    return new Problem(fault.status, 'Not taken', 'The message could not be read. Load the page anew, then try again.');
  return new Problem(
    500,
    'Fault in the server',
    'Nothing was stored. Try again; if it stays, look at the server’s log.',
  );
}

/** Seconds after which a busy server is asked again. */
const RETRY_S = 2;

export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = asProblem(error);
  // A database that is away is told once by the pool, not by everyone who asks.
  if (problem.status === 500) request.log.error(error);
  if (problem.status === 503) response.set('Retry-After', String(RETRY_S));
  const body: ProblemBody = {
    ...problem.more,
    type: 'about:blank',
    title: problem.title,
    status: problem.status,
    detail: problem.message,
    ...(problem.path === undefined ? {} : { path: problem.path }),
  };
  response.status(problem.status).type('application/problem+json').send(JSON.stringify(body));
};

export const unknownRoute: RequestHandler = () => {
  throw notFound('address');
};
