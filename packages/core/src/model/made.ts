/** How often addresses were made in each way at some place: a domain, a country, a size of company, everywhere. */
export type MadeCounts = ReadonlyMap<string, number>;
export type MadeAt = (place: string) => MadeCounts;
export const NONE_MADE: MadeAt = () => new Map();
