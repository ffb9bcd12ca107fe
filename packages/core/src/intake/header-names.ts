import type { Target } from '../model/target';

/** Header words, folded (lower case, letters and digits only), by what they mean. English, German, French, Spanish, Italian, Dutch, Irish. */
const NAMES: Partial<Record<Target, string>> = {
  fullName:
    'name fullname contact contactname contactnam contactperson person ansprechpartner kontakt kontaktperson nom nomcomplet nombre nombrecompleto nomecompleto naam member membername attendee delegate exhibitorcontact lead personname displayname nombreyapellidos nomeecognome contactpersoon ainm ainmiomlan nomprenom prenomnom nomprenoms vorundnachname voorenachternaam contacto contatto personadecontacto referente representative delegatename ownername nome ansprechperson nometprenom prenometnom nominativo destinataire destinatario destinatar recipient empfanger who nombreyapellido interlocuteur',
  honorific: 'salutation honorific prefix mr anrede civilite tratamiento titolo aanhef',
  firstName:
    'firstname first givenname given forename vorname prenom nombredepila voornaam fname christianname ceadainm primernombre nomedibattesimo roepnaam vornamen',
  middleName: 'middlename middle middleinitial zweitername',
  lastName:
    'lastname last surname familyname nachname familienname nomdefamille apellido apellidos cognome achternaam lname sloinne primerapellido nomfamille familienaam secondname',
  suffix: 'suffix namesuffix postnominals postnominal lettersaftername',
  title:
    'title jobtitle position role job function funktion stelle berufsbezeichnung poste fonction cargo puesto ruolo functie designation occupation headline mansione post rol teideal postheideal stellung qualifica puestodetrabajo berufstitel titre intituleduposte intitule beroep jobrole rolle functietitel jobfunction currenttitle',
  company:
    'company companyname organisation organization organisationname firm firma unternehmen societe entreprise empresa azienda bedrijf employer account accountname business exhibitor member brand currentcompany comhlacht cuideachta eagraiocht firmenname unternehmensname raisonsociale ragionesociale organisatie organizacion organizzazione organisme bedrijfsnaam nomdelentreprise nomentreprise nomsociete nombreempresa nomeazienda ditta compania betrieb arbeitgeber employeur werkgever employername accountcompany etablissement businessname tradingname firmname nombredelaempresa nomdelasociete nomedellazienda naambedrijf co client supplier producer institution workplace mill millname tradingas wheretheywork razonsocial denominazione lieferant kunde fournisseur producteur proveedor fornitore leverancier',
  website:
    'website web url site homepage domain webseite siteweb sitioweb sitoweb companywebsite companydomain internet www suiomh suiomhgreasain internetseite paginaweb webadresse siteinternet domainname companyurl',
  sector:
    'sector industry branche secteur settore sectornaam bransch branch lineofbusiness tradesector branchen rubrique actividad attivita secteurdactivite industria',
  headcount:
    'headcount employees noofemployees numberofemployees employeecount companysize staff mitarbeiter mitarbeiterzahl effectif empleados dipendenti medewerkers nombredesalaries numerodipendenti numerodeempleados aantalmedewerkers anzahlmitarbeiter fte',
  email:
    'email mail emailaddress businessemail workemail courriel correo correoelectronico contactemail epost emailwork riomhphost postaelettronica adressemail adresseemail adresseelectronique emailadres emailadresse mailadresse indirizzoemail direcciondecorreo',
  phone:
    'phone tel telephone telefon telefono phonenumber mobile mobil cell handy telefoonnummer telefonnummer directdial workphone phonework contactnumber tel1 gsm fon guthan movil cellulare mobiel portable gsmnumber numerodetelefono numerotelefono telefonnr telnr rufnummer telnumber phoneno telno directphone officephone',
  street:
    'street streetaddress address1 addressline1 strasse rue calle via straat addressstreet adresse direccion indirizzo adres seoladh anschrift strasseundhausnummer strasseundnr rueetnumero strassehausnummer strassenr addr addressline addr1',
  postcode:
    'postcode postalcode zip zipcode plz codepostal codigopostal cap eircode cp postcod postcodes postleitzahl codigo zippostalcode',
  place: 'place where whereabouts location address standort lieu ubicacion citystate area',
  city: 'city stadt ville ciudad citta stad locality town ort plaats woonplaats baile localite localita localidad poblacion municipio comune commune gemeinde gemeente wohnort cityname towncity posttown',
  region:
    'region state county province bundesland departement provincia provincie stateprovince contae kanton regione comunidad comunidadautonoma provinz',
  country: 'country land pays pais paese nation countrycode tir nazione countryname staat',
  earlierAddress:
    'earlieraddress previousaddress formeraddress oldaddress pastaddress lastaddress prioraddress fruhereadresse alteadresse ancienneadresse adresseprecedente direccionanterior indirizzoprecedente vorigadres oudadres',
  profile: 'profile profilelink profileurl link personlink contactlink publicprofile',
  note: 'note notes comment comments remark remarks bemerkung bemerkungen notiz remarque notas opmerking notizen anmerkung anmerkungen nota notai appunti observaciones opmerkingen commentaire commentaires',
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
    .replaceAll('ß', 'ss')
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
    TABLE.get(
      folded.replace(
        /^(contact|work|business(?!name)|company|primary|main|hq|headoffice|office|billing|mailing|personal|private|present|current|hiring|delegate|speaker|attendee|candidate|member(?!$))|(actual|actuel|actuelle|attuale)$/,
        '',
      ),
    ) ??
    TABLE.get(folded.replace(/s$/, '')) ??
    ofNested(name.split('.'))
  );
}
