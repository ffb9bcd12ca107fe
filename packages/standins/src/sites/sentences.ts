import type { Trade } from './trade';

/** What sites of each trade say of what they do; {c} a cheese, {t} the town, {n} a figure, {f} another firm. */
export const SAYS: Record<Trade, readonly string[]> = {
  cheese: [
    'We make {c} by hand in our own dairy, {n} wheels a week.',
    'Every morning the milk of our own herd becomes {c}.',
    'Our cheesemakers turn the curd and ladle it into moulds by hand.',
    'The cheese is aged in our caves for {n} weeks.',
    'We age it on wooden boards above {t}.',
    'Our {c} won gold at the county show.',
    'Made here since the farm sold its last churn: {c} and two more.',
    'We have been cheesemakers in {t} for {n} years.',
    'Come and see how our cheese is made, Thursdays at ten.',
    'Each wheel is salted, turned and rubbed in our ageing room.',
  ],
  milk: [
    'We bottle milk from {n} farms around {t}.',
    'Our milk is pasteurised here and on doorsteps before seven.',
    'We do not make cheese ourselves; some of our milk goes to {f}, who do.',
    'Cream, butter and buttermilk leave our dairy six days a week.',
    'We collect from {n} farms every other day.',
    'Liquid milk in pints, litres and pails for caterers.',
    'Our tankers are washed at the depot in {t}.',
    'Ask your milkman for our double cream.',
  ],
  ice: [
    'We churn ice cream in {n} flavours from local cream.',
    'Our sorbets are made with fruit from {t}.',
    'Scoops, tubs and cones from the parlour by the green.',
    'Made in small batches: ice cream, nothing else.',
    'Our neighbours make {c}; we make ice cream.',
    'Ask us for an ice cream van for your wedding.',
    'New this summer: gooseberry ripple.',
  ],
  shop: [
    'Our counter holds the cheeses of {n} makers.',
    'We do not make cheese: we choose it, keep it and cut it for you.',
    'Everything we sell is made by neighbours such as {f}.',
    'We sell {c}, crackers and pickles, in the shop and by post.',
    'Hampers with cheese and chutney, sent the same day.',
    'Our cheesemonger will help you choose.',
    'We also sell wine that goes with {c}.',
    'Gift vouchers for the shop in {t}.',
  ],
  store: [
    'We keep {n} pallet places at two degrees.',
    'Cold storage for those who make cheese, butter and meat.',
    'Our stores in {t} take chilled and frozen goods.',
    'Blast freezing and tempering on site.',
    'Pick and pack for food makers, day and night.',
    'Racked, logged and insured storage.',
    'We hold {c} for cheesemakers until it is sold.',
  ],
  food: [
    'We make ready meals, pies and quiches for shops.',
    'Our pies are filled with {c} bought from {f}.',
    'Soups and sauces in pouches from our kitchens in {t}.',
    'Our bakers start at three.',
    'We cook for {n} schools.',
    'Own label work for retailers is welcome.',
    'We buy in cheese, flour and eggs.',
  ],
  equipment: [
    'We make cheese vats, presses and curd mills from stainless steel.',
    'Machines for cheese making, made in {t}.',
    'Spare parts for pasteurisers within {n} hours.',
    'Our engineers install and service on site.',
    'Second-hand vats and cheese moulds in stock.',
    'Ask for a quotation for a turning machine.',
    'We weld, polish and pressure-test every tank.',
  ],
  consultancy: [
    'We advise those who make cheese on hygiene plans.',
    'Training and audits for dairies, {n} a year.',
    'Our consultants write your safety plan with you.',
    'Courses: how cheese is made safely, for inspectors.',
    'We help food firms to pass audits.',
    'A day rate, agreed beforehand.',
    'We have advised makers of {c} for {n} years.',
  ],
  packaging: [
    'We print and cut boxes, sleeves and labels.',
    'Waxed paper for cheese, made to your size.',
    'Cheese boxes made of poplar, from {n} pieces.',
    'Our presses in {t} run three shifts.',
    'Vacuum bags and trays from stock.',
    'Send us your artwork and we send a sample.',
    'Packaging for those who make {c}, butter and jam.',
  ],
  cooling: [
    'We install and service cold rooms and chillers.',
    'Ageing rooms for those who make cheese: cooled, damp and steady.',
    'Our fitters come within {n} hours, day and night.',
    'Refrigerant checks and logbooks.',
    'Heat pumps and ventilation for farms around {t}.',
    'We planned the cold rooms of {f}.',
    'Maintenance contracts by the year.',
  ],
};

/** The same for sites in German and French: of those who make cheese, and of the others. */
export const SAYS_ABROAD: Record<'de' | 'fr', { cheese: readonly string[]; other: readonly string[] }> = {
  de: {
    cheese: [
      'Wir stellen {c} von Hand her, {n} Laibe in der Woche.',
      'In unserer Käserei reift der Käse {n} Wochen.',
      'Unsere Milch wird jeden Morgen zu Käse.',
    ],
    other: [
      'Wir beliefern Betriebe rund um {t}.',
      'Unser Lager hat {n} Plätze.',
      'Rufen Sie uns an, wir beraten gern.',
    ],
  },
  fr: {
    cheese: [
      'Nous fabriquons {c} à la main, {n} meules par semaine.',
      'Le fromage est affiné dans nos caves pendant {n} semaines.',
      'Le lait de nos vaches devient fromage chaque matin.',
    ],
    other: ['Nous livrons les entreprises de {t}.', 'Notre entrepôt compte {n} places.', 'Appelez-nous pour un devis.'],
  },
};

/** What any site says. */
export const CHAFF = [
  'Welcome to our website.',
  'Find us five minutes from the middle of {t}.',
  'We are a family firm with {n} people.',
  'Read our news below.',
  'Opening hours: Monday to Friday, eight to five.',
  'This site uses cookies to remember your basket.',
  'Follow the brown signs from the main road.',
  'All rights reserved.',
  'Write to us for trade terms.',
  'The team went walking for the air ambulance and raised {n} pounds.',
] as const;

export const CHEESES = [
  'Hollow Blue',
  'a washed-rind tomme',
  'territorial cheese',
  'a soft goats’ cheese',
  'clothbound cheddar',
] as const;

export const PARKED = [
  'This domain may be for sale.',
  'Buy this domain: make an offer today.',
  'Related searches: loans, flights, insurance.',
] as const;
