const words = (text: string): string[] => text.split(/\s+/).filter(Boolean);

/** Words that say how a company is constituted, where they end a name or begin one. */
export const LEGAL_WORDS: ReadonlySet<string> = new Set(
  words(`ltd limited llc llp lp plc inc incorporated corp corporation co company coltd gmbh mbh gesellschaft ag kg ohg ug ev eg
    gbr se sa sas sarl sasu eurl spa srl snc ab as asa aps oy oyj bv nv cv vof kk yk pty pte pvt private bhd sdn jsc ojsc ooo oao oo z s ro spzoo
    zao pao tov doo dd ad sro spol zoo sp kft zrt nyrt rt ltda ltd limitada eireli slu sl cyf teo teoranta dac clg cic pt tbk
    public holding holdings`),
);

/** Words, as `nameWords` spells them, by which the sites of a group call themselves; common practice, no source. */
export const SITE_WORDS: ReadonlySet<string> = new Set(
  words(`grp holding parent site plant factory works work depot branch division unit office hq headquarter headquarters warehouse mill
    werk standort niederlassung usine site agence succursale planta fabrica sede stabilimento filiale vestiging locatie
    intl european uk gb ireland eire scotland england wales britain germany deutschland france italia espana nederland usa america
    north south east west central`),
);

/** Words that bind others and say nothing. */
export const BINDING_WORDS: ReadonlySet<string> = new Set(
  words('and und et y e og och the of for in de di da do du des der die das la le les el del van von zu i'),
);

/** Spellings of one word in names of companies, each list the same word, the shortest first; common practice, no source. */
const SAME: readonly string[] = [
  'tech technology technologies techs technologie technik technic technics tecnologia tecnologie',
  'intl international intl internat internacional internazionale',
  'electr electronic electronics elec electr electro elektronik elettronica electronica electronique',
  'elek electric electrical electrics elektrik electrique',
  'sys system systems sys syst systeme sistemas sistemi systemes',
  'comm communication communications comm comms commun',
  'telecom telecommunication telecommunications telecom telecoms telecomm telekom',
  'mfg manufacturing manufacturer manufacture mfg manuf mfr',
  'bros brothers bros brother gebruder gebr',
  'ind industry industries industrial ind indust industrie industria industrias industriale',
  'lab laboratory laboratories lab labs laboratorium laboratorio',
  'univ university univ universitat universite universita universidad universiteit',
  'eng engineering engr engrg engineers ingenierie ingenieria',
  'svc service services svc svcs servicios servizi',
  'grp group grp groupe gruppe gruppo grupo',
  'natl national natl nazionale nationale nacional',
  'assoc association assoc assn associates',
  'dept department dept',
  'ctr center centre ctr centro zentrum',
  'dev development developments dev devel',
  'res research res recherche forschung',
  'instr instrument instruments instr',
  'net network networks netwk',
  'soln solution solutions soln solns soluciones soluzioni losungen',
  'equip equipment equip equipments',
  'info information info informatica informatique informatik',
  'auto automation automatic automazione automatisierung',
  'comp computer computers comp computing',
  'sci science sciences sci scientific',
  'semi semiconductor semiconductors semi semicon',
  'prod product products prod prods produkte produits prodotti',
  'mgmt management mgmt mgt',
  'dist distribution distributors dist distr distributor',
  'ent enterprise enterprises ent',
  'inst institute inst institut instituto istituto',
  'american amer america',
  'european europe eur europa',
  'ctrl control controls ctrl',
  'device devices',
  'digital dig',
  'saint st',
  'north no nth',
  'mount mt',
];

export const ONE_SPELLING: ReadonlyMap<string, string> = new Map(
  SAME.flatMap((list) => words(list).map((word): [string, string] => [word, words(list)[0]!])),
);
