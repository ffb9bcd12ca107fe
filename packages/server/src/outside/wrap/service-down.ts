/** A service that cannot be asked now: a finder by its id, a directory by its name; `reason` is for the person. */
export class ServiceDown extends Error {
  constructor(
    readonly service: string,
    readonly reason: string,
  ) {
    super(`${service}: ${reason}`);
  }
}
