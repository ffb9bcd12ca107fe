/** Common practice, no source: the first 24 hours of a posting are worth most, and after three months it is stale. */
export const postingAge = (days: number): 'fresh' | 'usual' | 'stale' =>
  days <= 1 ? 'fresh' : days > 90 ? 'stale' : 'usual';
