import type { Elsewhere, FindElsewhere, FoundElsewhere, HeldElsewhere } from '../model/elsewhere';
import type { Person } from '../model/person';
import { likeness } from './likeness';
import type { Weights } from './likelihood';

/** What weighs people of other jobs: as this job's own are. */
export interface AcrossJobs {
  weights: Weights;
  /** Who is at least this likely the same is held. */
  mergeFrom: number;
  /** Who is less likely the same is somebody else. */
  judgeFrom: number;
}

/** Weighs whom other jobs hold under a like name as pairs of one job are weighed, by the same lines; who cannot be weighed is likely. */
export function weighElsewhere(find: FindElsewhere, across: AcrossJobs): (person: Person) => Elsewhere {
  const likenessOf = likeness(across.weights);
  const heldBy = (person: Person, { held, alike }: FoundElsewhere): HeldElsewhere => {
    if (held.length > 0) return { surely: held, likely: null };
    const weighed = alike().map((other) => ({ job: other.job, chance: likenessOf(person, other.person) }));
    const jobsOf = (those: typeof weighed) => [...new Set(those.map(({ job }) => job))];
    const surely = jobsOf(weighed.filter(({ chance }) => (chance ?? 0) >= across.mergeFrom));
    const doubtful = weighed.filter(({ chance }) => chance === null || chance >= across.judgeFrom);
    if (surely.length > 0 || doubtful.length === 0) return { surely, likely: null };
    const chances = doubtful.flatMap(({ chance }) => chance ?? []);
    return { surely, likely: { jobs: jobsOf(doubtful), chance: chances.length > 0 ? Math.max(...chances) : null } };
  };
  return (person) => {
    const found = find(person);
    return { left: found.left, held: () => heldBy(person, found) };
  };
}
