const list = (words: string) => words.split(' ');

export const FIRST = list(
  'Maren Tobias Aoife Gwenllian Idris Saoirse Benedikt Rhona Callum Niamh Piers Oluchi Eilidh Jasper Ffion Conor Alice Martin Helen Peter Susan David Laura James Emma Robert Catherine William Margaret Thomas Elizabeth Michael Patricia Stephen Deborah Andrew Rebecca Nicholas Victoria Christopher Jennifer Anthony Samantha Matthew Alexandra Daniel Philippa Edward Katherine Graham Siobhan Declan Orla Padraig Sinead Cormac Roisin Fergus Morag Hamish Isla Angus Bronwyn Rhys Carys Gareth Megan Owen Nerys Dylan Priya Arjun Meera Ravi Anjali Chen Mei Yusuf Amina Omar Leila Ingrid Lars Astrid Sven Giulia Marco Elena Paolo Camille Luc Sophie Henri Greta Jurgen Anke Pieter Marijke Joanna Tomasz Agnieszka Piotr Zofia Adam Grace Simon Clare Hugh Tamsin Jago Morwenna Ruth Neil Beth Colin Fiona Ewan Kirsty Duncan Heather',
);
export const LAST = list(
  'Oakhill Lindqvist Brannagh Parry Achterberg Kilmartin Farrow MacAskill Venn Tolliver Hathersage Benson-Reyes Corrie Thwaite Meredith Delahunt Ashdown Birkett Carvell Dunmore Easterby Fenwick Garside Holloway Ingleby Jessop Kettlewell Langstaff Marchbank Northcott Orchard Penhaligon Quayle Ramsbottom Selwyn Tresidder Underhill Varley Wetherall Yardley Appleyard Blackstock Cathcart Dalgleish Entwhistle Fairweather Greenhalgh Hardcastle Inchbald Jardine Kirkbride Lockhart Moorhouse Nettleton Ormerod Postlethwaite Rainford Sutcliffe Thackeray Ullathorne Wolstenholme Aldous Bagshaw Crabtree Drummond Elphick Foxley Goodall Hebden Illingworth Jolliffe Kingsnorth Ludlow Mapplebeck Nuttall Osgood Pettigrew Redfern Stanhope Tattersall Upton Vickers Winterbourne Ackroyd Bramhall Chadwick Daintree Elsworth Fothergill Grimshaw Hartnell Isherwood Kershaw Lathbury Midgley Nesbitt Oldroyd Pickersgill Rushworth Satterthwaite Titchmarsh Wainwright O’Dowd McGarrigle MacRae Ni-Bhriain O’Hanrahan McElroy Gallachoir Tremayne Polglaze Llewelyn Prosser Gethin Bevan Mulcahy Scanlon Hegarty Devlin Corcoran Tierney Nair Banerjee Okonjo Adeyemi Haddad Rahimi Lindgren Holm Moretti Ferrante Lefevre Marchand Vogel Brandt Visser Kowalczyk Nowicka Zielinski van-der-Meer de-Souza',
);
const PREFIX = list(
  'Bracken Hollin Sorrel Tide Inish Penny Strath Dunnock Cloon Edale Marl Arran Gars Teifi Aughty Larch Hazel Rowan Elder Thorn Heather Fern Moss Clover Barley Rye Oat Corn Mill Ford Bridge Stone Slate Flint Chalk Clay Sand Peat Marsh Fen Moor Fell Dale Glen Combe Holt Hurst Wold Down Cliff Tarn Beck Burn Brook Rill Spring Well Mere Pool Loch Lough Isle Haven Cove Quay Lamb Kid Calf Hart Hind Buck Fox Otter Heron Curlew Plover Lark Wren Finch Swift Kestrel Merlin Osprey Rook Raven Magpie Gold Silver Copper Iron Amber Ash Oak Alder Birch',
);
const SUFFIX = list(
  'field wray hill well moyle whistle lorn vale fad ley pit mor dale bank more wood bourne brook bridge ton ham stead worth wick combe ford gate garth croft side mouth head water mead land ridge shaw thorpe by holme keld barrow bury cote den dean edge end fold green hall hope law low moss nab rigg scar slack syke tarn thwaite wath beck cairn craig cross den grange heath',
);
/** Kind of firm by its closing words; the last rows are misfits that a loose search returns. */
export const KINDS = {
  Dairy: 'dairy',
  Creamery: 'dairy',
  'Farmhouse Cheese': 'dairy',
  'Cheese Works': 'dairy',
  Dairies: 'dairy',
  Goats: 'dairy',
  'Cheese Co.': 'dairy',
  'Ice Cream': 'dairy',
  'Cold Stores': 'store',
  'Cold Storage': 'store',
  Foods: 'food',
  'Dairy Equipment': 'misfit',
  'Food Consultancy': 'misfit',
  Packaging: 'misfit',
  'Refrigeration Services': 'misfit',
} as const;
export const FIRM_WORDS = Object.keys(KINDS) as (keyof typeof KINDS)[];

/** Stems of firms, each one a word that no real firm in this trade is known by. */
export const STEMS = PREFIX.flatMap((a) => SUFFIX.map((b) => a + b));

export const PLACES = [
  ['Wells', 'Somerset', 'GB'],
  ['Settle', 'North Yorkshire', 'GB'],
  ['Macroom', 'Cork', 'IE'],
  ['Bala', 'Gwynedd', 'GB'],
  ['Wadebridge', 'Cornwall', 'GB'],
  ['Westport', 'Mayo', 'IE'],
  ['Ludlow', 'Shropshire', 'GB'],
  ['Campbeltown', 'Argyll', 'GB'],
  ['Dumfries', 'Dumfries and Galloway', 'GB'],
  ['Boyle', 'Roscommon', 'IE'],
  ['Bakewell', 'Derbyshire', 'GB'],
  ['Frome', 'Somerset', 'GB'],
  ['Hawes', 'North Yorkshire', 'GB'],
  ['Llandysul', 'Ceredigion', 'GB'],
  ['Gort', 'Galway', 'IE'],
  ['Kendal', 'Cumbria', 'GB'],
  ['Nantwich', 'Cheshire', 'GB'],
  ['Clonmel', 'Tipperary', 'IE'],
  ['Enniskillen', 'Fermanagh', 'GB'],
  ['Burlington', 'Vermont', 'US'],
  ['Green Bay', 'Wisconsin', 'US'],
  ['Guelph', 'Ontario', 'CA'],
  ['Warrnambool', 'Victoria', 'AU'],
] as const;

export const TITLES = [
  'Head of Quality',
  'Quality Manager',
  'Quality Assurance Manager',
  'Production Manager',
  'Head of Production',
  'Technical Manager',
  'Technical Director',
  'Operations Director',
  'Quality & Food Safety Lead',
  'Dairy Technologist',
  'Head Cheesemaker',
  'Production Supervisor',
  'Managing Director',
  'Owner',
  'Founder',
  'Site Manager',
  'Sales Manager',
  'Marketing Assistant',
  'Delivery Driver',
  'Office Administrator',
  'Quality Intern',
  'Production Assistant',
  'Maintenance Engineer',
  'Finance Director',
] as const;
