/** A customer's file that cannot be taken: `message` says what happened and what to do. */
export class FileProblem extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
    this.name = 'FileProblem';
  }
}
