/** Lets this thread hear a stop, and another connection write, before the next piece of work. */
export const breathe = (): Promise<void> => new Promise((resolve) => setImmediate(resolve));
