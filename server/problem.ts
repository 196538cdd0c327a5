import type { Problem } from '../contracts/api';

/** Something a person is told: what happened, to what, and what to do. */
export class Trouble extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly waysOut?: readonly string[],
  ) {
    super(message);
    this.name = 'Trouble';
  }

  toJSON(): Problem {
    return {
      code: this.code,
      message: this.message,
      ...(this.waysOut ? { waysOut: [...this.waysOut] } : {}),
    };
  }
}

export const TOO_BUSY = 'too-busy';

/** What is more than can be done now is turned away at once, so that what was begun is done soon. */
export const tooBusy = (): Trouble =>
  new Trouble(
    503,
    TOO_BUSY,
    'The server has more to do than it can just now. Nothing was changed; try again in a moment.',
  );

export const notFound = (what: string): Trouble =>
  new Trouble(404, 'not-found', `There is no ${what} here. It may have been removed; go back to Orders.`);
