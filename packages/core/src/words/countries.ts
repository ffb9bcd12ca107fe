/** ISO 3166-1 alpha-2 codes and English names (Unicode CLDR). */
const COUNTRIES = `
  AD:Andorra AE:United_Arab_Emirates AF:Afghanistan AG:Antigua_and_Barbuda AI:Anguilla AL:Albania
  AM:Armenia AO:Angola AQ:Antarctica AR:Argentina AS:American_Samoa AT:Austria AU:Australia AW:Aruba
  AX:Åland_Islands AZ:Azerbaijan BA:Bosnia_and_Herzegovina BB:Barbados BD:Bangladesh BE:Belgium
  BF:Burkina_Faso BG:Bulgaria BH:Bahrain BI:Burundi BJ:Benin BL:St._Barthélemy BM:Bermuda BN:Brunei
  BO:Bolivia BQ:Caribbean_Netherlands BR:Brazil BS:Bahamas BT:Bhutan BV:Bouvet_Island BW:Botswana
  BY:Belarus BZ:Belize CA:Canada CC:Cocos_(Keeling)_Islands CD:Congo_-_Kinshasa
  CF:Central_African_Republic CG:Congo_-_Brazzaville CH:Switzerland CI:Côte_d’Ivoire CK:Cook_Islands
  CL:Chile CM:Cameroon CN:China CO:Colombia CR:Costa_Rica CU:Cuba CV:Cape_Verde CW:Curaçao
  CX:Christmas_Island CY:Cyprus CZ:Czechia DE:Germany DJ:Djibouti DK:Denmark DM:Dominica
  DO:Dominican_Republic DZ:Algeria EC:Ecuador EE:Estonia EG:Egypt EH:Western_Sahara ER:Eritrea ES:Spain
  ET:Ethiopia FI:Finland FJ:Fiji FK:Falkland_Islands FM:Micronesia FO:Faroe_Islands FR:France GA:Gabon
  GB:United_Kingdom GD:Grenada GE:Georgia GF:French_Guiana GG:Guernsey GH:Ghana GI:Gibraltar GL:Greenland
  GM:Gambia GN:Guinea GP:Guadeloupe GQ:Equatorial_Guinea GR:Greece
  GS:South_Georgia_and_South_Sandwich_Islands GT:Guatemala GU:Guam GW:Guinea-Bissau GY:Guyana
  HK:Hong_Kong_SAR_China HM:Heard_and_McDonald_Islands HN:Honduras HR:Croatia HT:Haiti HU:Hungary
  ID:Indonesia IE:Ireland IL:Israel IM:Isle_of_Man IN:India IO:British_Indian_Ocean_Territory IQ:Iraq
  IR:Iran IS:Iceland IT:Italy JE:Jersey JM:Jamaica JO:Jordan JP:Japan KE:Kenya KG:Kyrgyzstan KH:Cambodia
  KI:Kiribati KM:Comoros KN:St._Kitts_and_Nevis KP:North_Korea KR:South_Korea KW:Kuwait KY:Cayman_Islands
  KZ:Kazakhstan LA:Laos LB:Lebanon LC:St._Lucia LI:Liechtenstein LK:Sri_Lanka LR:Liberia LS:Lesotho
  LT:Lithuania LU:Luxembourg LV:Latvia LY:Libya MA:Morocco MC:Monaco MD:Moldova ME:Montenegro
  MF:St._Martin MG:Madagascar MH:Marshall_Islands MK:North_Macedonia ML:Mali MM:Myanmar_(Burma)
  MN:Mongolia MO:Macao_SAR_China MP:Northern_Mariana_Islands MQ:Martinique MR:Mauritania MS:Montserrat
  MT:Malta MU:Mauritius MV:Maldives MW:Malawi MX:Mexico MY:Malaysia MZ:Mozambique NA:Namibia
  NC:New_Caledonia NE:Niger NF:Norfolk_Island NG:Nigeria NI:Nicaragua NL:Netherlands NO:Norway NP:Nepal
  NR:Nauru NU:Niue NZ:New_Zealand OM:Oman PA:Panama PE:Peru PF:French_Polynesia PG:Papua_New_Guinea
  PH:Philippines PK:Pakistan PL:Poland PM:St._Pierre_and_Miquelon PN:Pitcairn_Islands PR:Puerto_Rico
  PS:Palestinian_Territories PT:Portugal PW:Palau PY:Paraguay QA:Qatar RE:Réunion RO:Romania RS:Serbia
  RU:Russia RW:Rwanda SA:Saudi_Arabia SB:Solomon_Islands SC:Seychelles SD:Sudan SE:Sweden SG:Singapore
  SH:St._Helena SI:Slovenia SJ:Svalbard_and_Jan_Mayen SK:Slovakia SL:Sierra_Leone SM:San_Marino SN:Senegal
  SO:Somalia SR:Suriname SS:South_Sudan ST:São_Tomé_and_Príncipe SV:El_Salvador SX:Sint_Maarten SY:Syria
  SZ:Eswatini TC:Turks_and_Caicos_Islands TD:Chad TF:French_Southern_Territories TG:Togo TH:Thailand
  TJ:Tajikistan TK:Tokelau TL:Timor-Leste TM:Turkmenistan TN:Tunisia TO:Tonga TR:Türkiye
  TT:Trinidad_and_Tobago TV:Tuvalu TW:Taiwan TZ:Tanzania UA:Ukraine UG:Uganda UM:U.S._Outlying_Islands
  US:United_States UY:Uruguay UZ:Uzbekistan VA:Vatican_City VC:St._Vincent_and_Grenadines VE:Venezuela
  VG:British_Virgin_Islands VI:U.S._Virgin_Islands VN:Vietnam VU:Vanuatu WF:Wallis_and_Futuna WS:Samoa
  YE:Yemen YT:Mayotte ZA:South_Africa ZM:Zambia ZW:Zimbabwe
`;

const OTHER_NAMES =
  'uk:GB u.k.:GB great_britain:GB britain:GB england:GB scotland:GB wales:GB cymru:GB northern_ireland:GB eire:IE ' +
  'republic_of_ireland:IE roi:IE usa:US u.s.a.:US u.s.:US united_states_of_america:US america:US deutschland:DE ' +
  'österreich:AT schweiz:CH suisse:CH españa:ES italia:IT nederland:NL holland:NL the_netherlands:NL belgië:BE ' +
  'belgique:BE sverige:SE danmark:DK norge:NO suomi:FI czech_republic:CZ turkey:TR vietnam:VN';

const entries = (list: string, codeFirst: boolean) =>
  list
    .trim()
    .split(/\s+/)
    .map((entry): [name: string, code: string] => {
      const [a, b] = entry.split(':') as [string, string];
      return codeFirst ? [b.replaceAll('_', ' ').toLowerCase(), a] : [a.replaceAll('_', ' '), b];
    });

const named = entries(COUNTRIES, true);

/** Country code by English name, other name or code, all in lower case. */
export const COUNTRY_BY_NAME: ReadonlyMap<string, string> = new Map([
  ...named,
  ...named.map(([, code]): [string, string] => [code.toLowerCase(), code]),
  ...entries(OTHER_NAMES, false),
]);
