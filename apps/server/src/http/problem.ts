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
  ) {
    super(message);
    this.name = 'Problem';
  }
}

export const notFound = (what: string): Problem =>
  new Problem(404, 'Not found', `There is no such ${what}. It may have been removed; go back to the bench.`);

/** Faults of the body reader carry a type of their own. */
interface BodyFault extends Error {
  readonly type?: string;
  readonly status?: number;
}

function asProblem(error: unknown): Problem {
  if (error instanceof Problem) return error;
  if (error instanceof RefusedEvent)
    return new Problem(409, 'The order does not take this entry', error.message, error.path);
  if (error instanceof FormatError) return new Problem(422, 'Not in the expected form', error.reason, error.path);
  const fault = error as BodyFault;
  if (fault.type === 'entity.too.large')
    return new Problem(413, 'Too large', `A message may have ${MAX_BODY} at most.`);
  if (fault.type === 'entity.parse.failed')
    return new Problem(400, 'Not JSON', 'The message could not be read as JSON.');
  if (fault.status !== undefined && fault.status >= 400 && fault.status < 500)
    return new Problem(fault.status, 'Not taken', fault.message);
  return new Problem(
    500,
    'Fault in the server',
    'Nothing was stored. Try again; if it stays, look at the server’s log.',
  );
}

export const problemHandler: ErrorRequestHandler = (error: unknown, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const problem = asProblem(error);
  if (problem.status >= 500) request.log.error(error);
  const body: ProblemBody = {
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
