/** Levels, most senior first. */
export const LEVELS = [
  'owner',
  'executive',
  'vice president',
  'director',
  'head',
  'manager',
  'lead',
  'specialist',
  'assistant',
] as const;
export type Level = (typeof LEVELS)[number];

/**
 * Words that say a rank: lower case, without accents. `word*` is how such a word begins, `*word` how a compound of German or
 * Dutch ends. English, German, French, Spanish, Italian, Dutch, Irish.
 */
export const RANK_WORDS: Readonly<Record<Level, string>> = {
  owner: `
    owner cofounder founder proprietor entrepreneur farmer
    inhaber* grunder* gesellschafter* unternehmer* landwirt*
    fondateur fondatrice cofondateur cofondatrice proprietaire agriculteur agricultrice
    propietari* dueno duena fundador fundadora cofundador* emprendedor*
    titolare fondatore proprietari* imprenditore imprenditrice
    eigenaar eigenares oprichter oprichtster ondernemer
    uineir bunaitheoir
    coowner shareholder restaurateur vintner landlord
    cofondateurs associe associee exploitant exploitante
    copropietari* accionista ganadero ganadera
    contitolare cofondatore allevatore
    vennoot firmant aandeelhouder medeoprichter veehouder*
    comhbhunaitheoir comhuineir feirmeoir`,
  executive: `
    ceo coo cfo cto cio cmo cqo cco cpo cso chro president presidente chairman chairwoman chairperson chair
    geschaftsfuhrer* geschaftsleiter* vorstand* generaldirektor*
    pdg dg gerant gerante presidenta
    amministratore amministratrice
    bestuurder bestuursvoorzitter
    priomhfheidhmeannach pof cathaoirleach uachtaran
    ciso cdo geschaftsleit* cogerant cogerante administrador administradora zaakvoerder zaakvoerster voorzitter
    priomhoifigeach`,
  'vice president': `vp svp evp avp vicepresident* viceprasident* vizeprasident*`,
  director: `
    director directors trustee
    direktor* *direktor *direktorin prokurist*
    directeur directrice
    directora
    direttore direttrice
    stiurthoir
    governor *directeur dirigente vicedirettore vicedirettrice procuratore subdirector subdirectora`,
  head: `
    head
    leiter leiterin leitung *leiter *leiterin *leitung
    chef chefin cheffe jefe jefa capo
    hoofd *hoofd *leider *leidster
    ceann
    *chef *chefin dean`,
  manager: `
    manager managers manageress superintendent
    *manager *managerin
    responsable responsables gerente gerenta
    responsabile
    bainisteoir`,
  lead: `
    lead leader supervisor foreman forewoman chargehand master senior principal
    meister* *meister *meisterin vorarbeiter* *vorarbeiter polier
    maitre maitresse contremaitre superviseur superviseuse
    encargado encargada supervisora maestro maestra capataz
    caporeparto capoturno capocantiere caposquadra mastro supervisore
    ploegleider teamleider meesterkaasmaker voorman
    maoirseoir ceannaire sinsearach
    overseer teamlead teamleader schichtfuhrer* gruppenfuhrer* teamfuhrer* *baas`,
  specialist: `
    technologist technician engineer specialist analyst officer coordinator scientist researcher buyer inspector
    auditor
    adviser advisor consultant microbiologist chemist planner scheduler designer developer programmer architect
    writer editor
    accountant bookkeeper representative agent recruiter merchandiser electrician fitter mechanic welder butcher
    baker brewer
    affineur grader statistician estimator negotiator trainer nutritionist vet veterinarian freelancer nurse
    technologists strategist copywriter translator *maker maturer expert counsellor surveyor associate
    beauftragte* *beauftragte *beauftragter *beauftragten mitarbeiter* *mitarbeiter *mitarbeiterin sachbearbeiter*
    *sachbearbeiter *sachbearbeiterin referent referentin *referent *referentin *technologe *technologin *techniker
    *technikerin techniker* ingenieur* *ingenieur *ingenieurin einkaufer* verkaufer* kaser* laborant* *laborant
    *laborantin
    *entwickler *entwicklerin berater* *berater *beraterin vertreter* *vertreter *vertreterin elektriker*
    mechaniker*
    *mechaniker *mechanikerin mechatroniker* schlosser* buchhalter* *buchhalter *buchhalterin *administrator
    disponent*
    prufer* *prufer *spezialist *spezialistin kaufmann kauffrau *kaufmann *kauffrau fachkraft *fachkraft
    technicien technicienne ingenieure charge chargee animateur animatrice acheteur acheteuse fromager fromagere
    affineuse comptable controleur controleuse commercial commerciale attache attachee delegue deleguee conseiller
    conseillere
    coordinateur coordinatrice analyste formateur qualiticien qualiticienne electricien mecanicien
    tecnico tecnica ingeniero ingeniera comprador compradora quesero quesera contable comercial representante
    analista
    especialista inspectora asesor asesora consultor consultora electricista mecanico
    addetto addetta casaro casara agente contabile manutentore tecnologo tecnologa ingegnere specialista
    compratore venditore venditrice elettricista meccanico consulente
    medewerker medewerkster *medewerker *medewerkster *controleur kaasmaker inkoper vertegenwoordiger *monteur
    monteur boekhouder
    *ontwikkelaar adviseur *adviseur verkoper technoloog *technoloog analist technicus
    oifigeach teicneoir innealtoir cuntasoir caisdeantoir speisialtoir anailisi
    executive controller generalist cheesemonger fishmonger fellow instructor teacher lecturer tutor coach broker
    dealer trader
    journalist photographer lawyer solicitor attorney paralegal actuary economist biologist biochemist toxicologist
    agronomist dietitian machinist plumber carpenter joiner assessor salesperson salesman saleswoman contractor
    dispatcher
    expeditor freelance practitioner creator bursar producer maltster milkman
    *planer *designer *gestalter *redakteur *redakteurin *betreuer *betreuerin *fachmann *wart *kontrolleur
    *chemiker chemiker*
    *biologe *biologin biologe *planner fachmann *innendienst *aussendienst
    redacteur redactrice vendeur vendeuse technico juriste developpeur developpeuse informaticien informaticienne
    gestionnaire
    laborantine soudeur frigoriste biologiste microbiologiste chimiste nutritionniste formatrice planificateur
    ordonnanceur approvisionneur approvisionneuse graphiste
    gestor gestora vendedor vendedora programador programadora disenador disenadora quimico quimica biologo biologa
    microbiologo microbiologa abogado abogada delegado delegada coordinador coordinadora
    disegnatore progettista programmatore sviluppatore chimico chimica ragioniere ragioniera commercialista
    ispettore promotore
    coordinatore
    *coordinator *specialist *technicus *engineer *analist *begeleider *inkoper *verkoper *inspecteur *bakker
    feidhmeannach eolai micribhitheolai ceannaitheoir comhordaitheoir dearthoir ionadai
    ambassador liaison facilitator orchestrator tester moderator specialiste executif architecte strategiste
    representant
    consultante producteur inspecteur inspectrice auditeur auditrice ejecutivo ejecutiva oficial asociado arquitecto
    estratega productor
    productora facilitador facilitadora planificador planificadora desarrollador desarrolladora agronomo veterinario
    veterinaria
    auditora`,
  assistant: `
    assistant assistants intern internship trainee apprentice placement student secretary receptionist driver
    operative operator
    helper clerk administrator labourer laborer packer picker cleaner porter cashier waiter waitress pa stockman
    assistent* *assistent *assistentin *assistenz assistenz auszubildend* azubi praktikant* werkstudent* *sekretar
    *sekretarin
    sekretar* *helfer *helferin hilfskraft aushilfe fahrer* *fahrer lagerist* *fuhrer *fuhrerin *bediener
    lagermitarbeiter*
    assistante stagiaire alternant alternante apprenti apprentie secretaire operateur operatrice ouvrier ouvriere
    magasinier chauffeur manutentionnaire
    auxiliar ayudante becario becaria aprendiz secretaria secretario operario operaria mozo peon almacenero
    conductor
    administrativo administrativa practicante asistente
    operaio operaia magazziniere impiegato impiegata tirocinante apprendista stagista segretaria segretario
    assistente autista
    stagiair secretaresse *secretaresse productiemedewerker* magazijnmedewerker* leerling
    cuntoir runai printiseach oibri tiomanai
    attendant loader stocker worker handler farmhand crew temp volunteer cadet caretaker steward barista server
    typist telephonist
    *arbeiter *arbeiterin produktionsmitarbeiter* lagermitarbeit* *kraft
    cariste preparateur preparatrice livreur livreuse conducteur conductrice employe employee vendangeur
    dependiente dependienta cajero cajera repartidor carretillero manipulador manipuladora
    commesso commessa mulettista fattorino
    *chauffeur *operator heftruck* winkelmedewerker* schoonmaker* inpakker*
    oibreoir riarthoir freastalai`,
};

/** They take nothing from the rank they stand with: a deputy director is of a director's level. */
export const NO_RANK: ReadonlySet<string> = new Set(
  'deputy acting interim vice adjoint adjointe adjunto adjunta stellvertretend stellvertretende stellvertretender stellv stv group leas'.split(' '),
);

/** Ranks that can be a word of what somebody looks after: they count where they stand last. A student services manager is no student. */
export const WEAK_ASSISTANTS: ReadonlySet<string> = new Set(
  'intern internship apprentice student driver operative operator secretary receptionist placement clerk trainee administrator'.split(
    ' ',
  ),
);
