/** Legal forms as they end a company's name, longest first where one ends another. */
export const LEGAL_FORMS = [
  'Company Limited by Guarantee',
  'Designated Activity Company',
  'Public Limited Company',
  'Limited Liability Company',
  'Limited Liability Partnership',
  'Cwmni Cyfyngedig',
  'Community Interest Company',
  'GmbH & Co. KG',
  'GmbH & Co KG',
  'Pty. Ltd.',
  'Pty. Ltd',
  'Pty Ltd',
  'Pty Limited',
  'Co. Ltd.',
  'Co. Ltd',
  'Co Ltd',
  'Incorporated',
  'Corporation',
  'Teoranta',
  'Limited',
  'L.L.C.',
  'S.p.A.',
  'S.r.l.',
  'S.A.S.',
  'gGmbH',
  'GmbH',
  'B.V.',
  'N.V.',
  'S.A.',
  'Corp.',
  'Corp',
  'Ltda',
  'Ltd.',
  'Ltd',
  'LLC',
  'LLP',
  'PLC',
  'Plc',
  'Inc.',
  'Inc',
  'Cyf.',
  'Cyf',
  'Teo',
  'DAC',
  'CLG',
  'CIC',
  'SpA',
  'SRL',
  'SAS',
  'SARL',
  'KG',
  'OHG',
  'AG',
  'AB',
  'ApS',
  'A/S',
  'AS',
  'BV',
  'NV',
  'Oy',
  'SA',
  'SE',
] as const;

export const LEGAL_FORM_WORDS: ReadonlySet<string> = new Set(
  'ltd limited llc llp plc inc corp gmbh pty cyf teo teoranta dac clg srl spa sarl bv nv oy aps'.split(' '),
);

/** Words that a company's name has and a person's has not; those of one trade are added in the settings. */
export const COMPANY_WORDS: ReadonlySet<string> = new Set(
  'company group holdings services solutions systems foods food farm farms industries international logistics storage store stores products partners consulting engineering equipment cooperative co-operative coop works'.split(
    ' ',
  ),
);

/** Kept in capitals wherever they stand. */
export const COMPANY_ABBREVIATIONS: ReadonlySet<string> = new Set(
  'UK USA US EU NI GB IT HR PR TV BBQ DIY QA QC IQF UHT AI IOT R&D M&S'.split(' '),
);

export const SMALL_WORDS: ReadonlySet<string> = new Set(
  'and of the for in on at by to de del la le les du des der die und y e et von van a an'.split(' '),
);
