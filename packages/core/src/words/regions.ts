const REGIONS: Record<string, string> = {
  GB: 'Bedfordshire,Berkshire,Buckinghamshire,Cambridgeshire,Cheshire,Cornwall,Cumbria,Derbyshire,Devon,Dorset,Durham,East Sussex,Essex,Gloucestershire,Greater London,Greater Manchester,Hampshire,Herefordshire,Hertfordshire,Kent,Lancashire,Leicestershire,Lincolnshire,Merseyside,Norfolk,Northamptonshire,Northumberland,North Yorkshire,Nottinghamshire,Oxfordshire,Rutland,Shropshire,Somerset,South Yorkshire,Staffordshire,Suffolk,Surrey,Tyne and Wear,Warwickshire,West Midlands,West Sussex,West Yorkshire,Wiltshire,Worcestershire,Yorkshire,Argyll,Ayrshire,Dumfries and Galloway,Fife,Highland,Lanarkshire,Orkney,Perthshire,Scottish Borders,Anglesey,Carmarthenshire,Ceredigion,Clwyd,Conwy,Denbighshire,Gwynedd,Monmouthshire,Pembrokeshire,Powys,Antrim,Armagh,Down,Fermanagh,Londonderry,Tyrone',
  IE: 'Carlow,Cavan,Clare,Cork,Donegal,Dublin,Galway,Kerry,Kildare,Kilkenny,Laois,Leitrim,Limerick,Longford,Louth,Mayo,Meath,Monaghan,Offaly,Roscommon,Sligo,Tipperary,Waterford,Westmeath,Wexford,Wicklow',
  US: 'Alabama,Alaska,Arizona,Arkansas,California,Colorado,Connecticut,Delaware,Florida,Georgia,Hawaii,Idaho,Illinois,Indiana,Iowa,Kansas,Kentucky,Louisiana,Maine,Maryland,Massachusetts,Michigan,Minnesota,Mississippi,Missouri,Montana,Nebraska,Nevada,New Hampshire,New Jersey,New Mexico,New York,North Carolina,North Dakota,Ohio,Oklahoma,Oregon,Pennsylvania,Rhode Island,South Carolina,South Dakota,Tennessee,Texas,Utah,Vermont,Virginia,Washington,West Virginia,Wisconsin,Wyoming',
  CA: 'Alberta,British Columbia,Manitoba,New Brunswick,Newfoundland and Labrador,Nova Scotia,Ontario,Prince Edward Island,Quebec,Saskatchewan',
  AU: 'New South Wales,Queensland,South Australia,Tasmania,Victoria,Western Australia',
};

const SHORT: Record<string, string> = {
  US: 'AL:Alabama,AK:Alaska,AZ:Arizona,AR:Arkansas,CA:California,CO:Colorado,CT:Connecticut,DE:Delaware,FL:Florida,GA:Georgia,HI:Hawaii,ID:Idaho,IL:Illinois,IN:Indiana,IA:Iowa,KS:Kansas,KY:Kentucky,LA:Louisiana,ME:Maine,MD:Maryland,MA:Massachusetts,MI:Michigan,MN:Minnesota,MS:Mississippi,MO:Missouri,MT:Montana,NE:Nebraska,NV:Nevada,NH:New Hampshire,NJ:New Jersey,NM:New Mexico,NY:New York,NC:North Carolina,ND:North Dakota,OH:Ohio,OK:Oklahoma,OR:Oregon,PA:Pennsylvania,RI:Rhode Island,SC:South Carolina,SD:South Dakota,TN:Tennessee,TX:Texas,UT:Utah,VT:Vermont,VA:Virginia,WA:Washington,WV:West Virginia,WI:Wisconsin,WY:Wyoming',
  CA: 'AB:Alberta,BC:British Columbia,MB:Manitoba,NB:New Brunswick,NL:Newfoundland and Labrador,NS:Nova Scotia,ON:Ontario,PE:Prince Edward Island,QC:Quebec,SK:Saskatchewan',
  AU: 'NSW:New South Wales,QLD:Queensland,TAS:Tasmania,VIC:Victoria',
  GB: 'N Yorks:North Yorkshire,W Yorks:West Yorkshire,S Yorks:South Yorkshire,Yorks:Yorkshire,Derbys:Derbyshire,Lancs:Lancashire,Glos:Gloucestershire,Wilts:Wiltshire,Hants:Hampshire,Herts:Hertfordshire,Leics:Leicestershire,Lincs:Lincolnshire,Northants:Northamptonshire,Notts:Nottinghamshire,Oxon:Oxfordshire,Salop:Shropshire,Staffs:Staffordshire,Worcs:Worcestershire,Cambs:Cambridgeshire,Bucks:Buckinghamshire',
};

export interface Region {
  region: string;
  country: string;
}

const table = new Map<string, Region>();
for (const [country, names] of Object.entries(REGIONS)) {
  for (const region of names.split(',')) table.set(region.toLowerCase(), { region, country });
}
for (const [country, pairs] of Object.entries(SHORT)) {
  for (const pair of pairs.split(',')) {
    const [short, region] = pair.split(':') as [string, string];
    table.set(short.toLowerCase(), { region, country });
  }
}

/** Region and country by the region's name or abbreviation; `Co. Mayo` and `County Mayo` are read too. */
export const regionOf = (name: string): Region | undefined =>
  table.get(
    name
      .toLowerCase()
      .replace(/^(co\.?|county)\s+/, '')
      .replace(/\.$/, ''),
  );
