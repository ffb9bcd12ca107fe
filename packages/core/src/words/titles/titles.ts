/** Abbreviations in job titles: lower case, no dots. */
export const TITLE_ABBREVIATIONS: Readonly<Record<string, string>> = {
  mgr: 'Manager',
  mgmt: 'Management',
  mngr: 'Manager',
  man: 'Manager',
  dir: 'Director',
  prod: 'Production',
  prodn: 'Production',
  asst: 'Assistant',
  assoc: 'Associate',
  sr: 'Senior',
  snr: 'Senior',
  jr: 'Junior',
  jnr: 'Junior',
  qa: 'Quality Assurance',
  qc: 'Quality Control',
  ops: 'Operations',
  op: 'Operations',
  eng: 'Engineering',
  engr: 'Engineer',
  tech: 'Technical',
  mfg: 'Manufacturing',
  exec: 'Executive',
  hd: 'Head',
  dept: 'Department',
  vp: 'Vice President',
  svp: 'Senior Vice President',
  evp: 'Executive Vice President',
  md: 'Managing Director',
  gm: 'General Manager',
  supv: 'Supervisor',
  coord: 'Coordinator',
  admin: 'Administrator',
  rep: 'Representative',
  dev: 'Development',
  mktg: 'Marketing',
  hr: 'Human Resources',
  npd: 'New Product Development',
  hse: 'Health, Safety and Environment',
};

/** Kept in capitals. */
export const TITLE_CAPITALS: ReadonlySet<string> = new Set(
  'CEO COO CFO CTO CIO CMO CPO CQO IT R&D HACCP UK EMEA EHS ERP'.split(' '),
);

/** Words by which a column of titles is recognised. */
const TITLE_WORDS: ReadonlySet<string> = new Set(
  'manager director head owner founder lead leader officer engineer technologist supervisor assistant executive president chief coordinator specialist mgr dir buyer intern driver technician ceo coo cfo cto analyst administrator consultant'.split(
    ' ',
  ),
);

export const isTitleWord = (word: string): boolean => TITLE_WORDS.has(word) || word.endsWith('maker');
