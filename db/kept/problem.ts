/** Why a backup, a restore or an archive cannot go on, as a sentence with a way on. */
export class KeptProblem extends Error {
  constructor(
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}
