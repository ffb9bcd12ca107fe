/** A service that cannot be asked now: a finder by its id, a directory by its name; `reason` is for the person. */
export class ServiceDown extends Error {
  constructor(
    readonly service: string,
    readonly reason: string,
  ) {
    super(`${service}: ${reason}`);
  }
}

/** A service that was asked too fast (429): it did nothing, and can be asked again after a while. */
export class TooFast extends ServiceDown {
  constructor(
    service: string,
    readonly waitMs: number,
  ) {
    super(service, 'it answered 429');
  }
}
