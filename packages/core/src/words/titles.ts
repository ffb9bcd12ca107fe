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

/** Levels, most senior first; the first whose word is in the title is its level. */
export const LEVELS: readonly (readonly [level: string, words: RegExp])[] = [
  [
    'assistant',
    /\b(assistant|intern|trainee|apprentice|placement|student|secretary|receptionist|driver|operative|helper)\b/i,
  ],
  ['owner', /\b(owner|founder|co-?founder|proprietor|partner)\b/i],
  ['executive', /\b(c[eotfmipq]o|chief|president(?!.*vice)|chair(man|woman|person)?|managing director)\b/i],
  ['vice president', /\bvice president\b/i],
  ['director', /\bdirector\b/i],
  ['head', /\bhead\b/i],
  ['manager', /\b(manager|superintendent)\b/i],
  ['lead', /\b(lead|leader|supervisor|foreman|principal|master|senior)\b/i],
  [
    'specialist',
    /\b(technologist|technician|engineer|specialist|analyst|officer|coordinator|scientist|\w*maker|buyer|inspector|auditor|adviser|advisor|consultant|microbiologist)\b/i,
  ],
];

export const TEAMS: readonly (readonly [team: string, words: RegExp])[] = [
  ['quality', /\b(quality|qa|qc|food safety|compliance|haccp|microbiolog\w*|hygiene|auditor)\b/i],
  ['technical', /\b(technical|technolog\w*|r&d|research|new product|laboratory|lab)\b/i],
  ['production', /\b(production|manufactur\w*|\w*mak(er|ing)|maturing|ripening|plant|factory|process|packing)\b/i],
  ['operations', /\b(operations?|site|facilit\w*|continuous improvement|coo)\b/i],
  ['engineering', /\b(engineer\w*|maintenance|refrigeration|electrical)\b/i],
  [
    'supply',
    /\b(supply|logistics?|warehouse|transport|distribution|cold store|driver|purchas\w*|procurement|buyer)\b/i,
  ],
  ['sales', /\b(sales|account|business development|commercial|export|retail|shop)\b/i],
  ['marketing', /\b(marketing|brand|communications|media|events)\b/i],
  ['finance', /\b(finance|financial|accounts|accountant|cfo|payroll)\b/i],
  ['people', /\b(human resources|people|talent|recruit\w*|hr)\b/i],
  ['it', /\b(it|software|data|systems|cio|cto)\b/i],
  [
    'management',
    /\b(owner|founder|ceo|chief executive|managing director|general manager|president|proprietor|partner|chair\w*)\b/i,
  ],
];

/** Words by which a column of titles is recognised. */
const TITLE_WORDS: ReadonlySet<string> = new Set(
  'manager director head owner founder lead leader officer engineer technologist supervisor assistant executive president chief coordinator specialist mgr dir buyer intern driver technician ceo coo cfo cto analyst administrator consultant'.split(
    ' ',
  ),
);

export const isTitleWord = (word: string): boolean => TITLE_WORDS.has(word) || word.endsWith('maker');
