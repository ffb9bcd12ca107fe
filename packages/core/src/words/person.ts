const set = (words: string): ReadonlySet<string> => new Set(words.split(' '));

/** Honorifics before a name: lower case, no dots. */
export const HONORIFICS = set(
  'mr mrs ms miss mx dr prof professor rev reverend fr sir dame lord lady hon rt right the sgt lt col capt major maj gen cpl cmdr herr frau madame monsieur mme mlle sig sra sr. dra ing dipl-ing',
);

/** Generational suffixes after a name. */
export const SUFFIXES = set('jr sr ii iii iv v 2nd 3rd esq esquire');

/** Degrees, memberships and honours after a name: lower case, no dots. */
export const CREDENTIALS = set(
  'phd md mba msc bsc ba ma bs ms meng beng mphil dphil llb llm cpa cfa acca aca fca mbe obe cbe kbe mp qc kc rn dds dvm mrcvs do pe ceng ieng cmgr pmp prince2 cipd mcips fcips mciob frsa fifst mifst fist csci rsci haccp iosh nebosh grad dip hons bvsc dba edd jd six-sigma',
);

/** Particles that start a last name. */
export const PARTICLES = set(
  'van von der den de del della dei di da do dos das du la las los le ten ter zu zur zum af av bin ibn ben al el st st. san santa vander vanden mac ap ab ferch ni nic o ua',
);

/** Particles that stay in lower case inside a name. */
export const LOWER_PARTICLES = set(
  'van von der den de del della dei di da do dos das du la las los ten ter zu zur af av y e ap ab ferch',
);

/** Joins two parts of one last name. */
export const JOINERS = set('y e i');

/** Names with Mac before a capital; others such as Mackie or Macey have none. */
export const MAC_NAMES = set(
  'macaskill macdonald macdougall macgregor macintyre mackenzie mackay mackinnon maclean macleod macmillan macnab macneil macpherson macrae macarthur macfarlane macallister macaulay maccormack macinnes maciver macqueen',
);
