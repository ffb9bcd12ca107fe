import type { Target } from '../model/target';

/** Header words, folded (lower case, letters and digits only), by what they mean. English, German, French, Spanish, Italian, Dutch. */
const NAMES: Partial<Record<Target, string>> = {
  fullName:
    'name fullname contact contactname contactnam contactperson person ansprechpartner kontakt kontaktperson nom nomcomplet nombre nombrecompleto nomecompleto naam member membername attendee delegate exhibitorcontact lead personname displayname',
  honorific: 'salutation honorific prefix mr anrede civilite tratamiento titolo aanhef',
  firstName: 'firstname first givenname given forename vorname prenom nombredepila voornaam fname christianname',
  middleName: 'middlename middle middleinitial zweitername',
  lastName:
    'lastname last surname familyname nachname familienname nomdefamille apellido apellidos cognome achternaam lname',
  suffix: 'suffix namesuffix',
  title:
    'title jobtitle position role job function funktion stelle berufsbezeichnung poste fonction cargo puesto ruolo functie designation occupation headline',
  company:
    'company companyname organisation organization organisationname firm firma unternehmen societe entreprise empresa azienda bedrijf employer account accountname business exhibitor member organisation brand currentcompany',
  website:
    'website web url site homepage domain webseite siteweb sitioweb sitoweb companywebsite companydomain internet www',
  sector: 'sector industry branche secteur settore sectornaam bransch branch lineofbusiness tradesector',
  headcount:
    'headcount employees noofemployees numberofemployees employeecount companysize staff mitarbeiter mitarbeiterzahl effectif empleados dipendenti medewerkers',
  email:
    'email mail emailaddress businessemail workemail courriel correo correoelectronico contactemail epost emailwork',
  phone:
    'phone tel telephone telefon telefono phonenumber mobile mobil cell handy telefoonnummer telefonnummer directdial workphone phonework contactnumber tel1 gsm',
  street: 'street streetaddress address1 addressline1 strasse rue calle via straat addressstreet',
  postcode: 'postcode postalcode zip zipcode plz codepostal codigopostal cap eircode',
  place: 'place location address town ort standort lieu ubicacion citystate area',
  city: 'city stadt ville ciudad citta stad locality',
  region: 'region state county province bundesland departement provincia provincie stateprovince',
  country: 'country land pays pais paese nation countrycode',
  profile: 'profile profilelink profileurl link personlink contactlink publicprofile',
  note: 'note notes comment comments remark remarks bemerkung bemerkungen notiz remarque notas opmerking',
};

const SKIPPED = 'stand standno booth boothno hall stall id no nr row rowid';

const TABLE = new Map<string, Target>(
  Object.entries(NAMES).flatMap(([target, words]) => words.split(' ').map((word) => [word, target as Target] as const)),
);
for (const word of SKIPPED.split(' ')) TABLE.set(word, 'skip');

/** Folds a header: 'E-Mail Adresse' and 'e_mail adresse' are the same. */
export const foldName = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');

/** A field of a nested object: `name.first` is a first name, `address.city` a city; `manager.name` is nobody's here. */
function ofNested(path: readonly string[]): Target | undefined {
  const [own, parent] = [path.at(-1)!, path.at(-2)];
  if (parent === undefined) return undefined;
  return TABLE.get(foldName(`${own}${parent}`)) ?? (foldName(own) === 'name' ? undefined : TABLE.get(foldName(own)));
}

/** What a header says its column is; undefined when it says nothing we know. */
export function targetOfName(name: string): Target | undefined {
  const folded = foldName(name);
  return (
    TABLE.get(folded) ??
    TABLE.get(folded.replace(/\d+$/, '')) ??
    TABLE.get(folded.replace(/^(contact|work|business|company|primary|main)/, '')) ??
    TABLE.get(folded.replace(/s$/, '')) ??
    ofNested(name.split('.'))
  );
}
