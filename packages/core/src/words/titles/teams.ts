/** Teams; where a title speaks of several, the first of them it is. */
export const TEAMS = [
  'quality',
  'technical',
  'sales',
  'marketing',
  'supply',
  'production',
  'operations',
  'engineering',
  'finance',
  'people',
  'it',
  'management',
] as const;
export type Team = (typeof TEAMS)[number];

/**
 * Words that say a team: lower case, without accents; `word*` is how one begins, in compounds too (Qualitätsleiter). `says` decides;
 * `hints`, the names of trades and the like, only where no word says: a quality engineer is in quality.
 */
export const TEAM_WORDS: Readonly<Record<Team, { says: string; hints: string }>> = {
  quality: {
    says: `
      quality qualit* qa qc qm qs qmb qhse qse haccp compliance hygien* microbiolog* mikrobiolog* regulatory
      calidad inocuidad kwaliteit* voedselveiligheid cailioch* chailioch* cqo lebensmittelsicherheit qualitic*
      assurance standards sanitation sqf brc brcgs iso gmp traceability allergen validation kwaliteitszorg hygiene
      pathogen* micribhitheol* caighdean*`,
    hints: `auditor audit auditing auditeur auditrice inspector certification`,
  },
  technical: {
    says: `
      technical research laborator* lab laboratory laboratorio laboratoire innovation innovatie innovacion innovazione
      recherche ricerca investigacion forschung* entwicklung* produktentwick* productontwikk* developpement
      technisch* technique teicniuil theicniuil saotharlann* taighde npd labor* laborant*
      onderzoek formulation recipe analytical chemistry pilot sviluppo desarrollo desarrollos ontwikkeling
      developpements`,
    hints: `
      technolog* tecnolog* lebensmitteltechnolog* chemist scientist sensory produktentwickler* nutrition*
      chemielaborant*
      technicien technicienne tecnico tecnica biochemist chimiste quimico chimico eolai`,
  },
  sales: {
    says: `
      sales account commercial export retail shop store customer customers category
      vertrieb* verkauf* export* aussendienst* innendienst kunden* gebietsverkauf* filial*
      ventes vente commerciale commerciaux
      comercial ventas exportacion clientes
      vendite commercio clienti
      commercieel commerciele verkoop* klanten* accountmanager*
      diolachan dhiolachan diolachain dhiolachain
      foodservice wholesale telesales telemarketing client clients clientele revenue pricing bid tender partnerships
      merchandising territory
      handel* innendienst* grosshandel* exportaciones tienda tiendas cliente estero esportazione esportazioni negozio
      vendita winkel* detailhandel siopa onnmhair* custaimeir*`,
    hints: `
      merchandiser vertegenwoordiger* vertreter* representative commerce cheesemonger salesman saleswoman salesperson
      vendeur vendeuse vendedor vendedora venditore venditrice dependiente commesso boutique`,
  },
  marketing: {
    says: `
      marketing brand communications communication media events pr publicity cmo
      offentlichkeitsarbeit kommunikation* werbung produktmanag* markenmanag*
      comunicacion comunicazione communicatie margaioch* mhargaioch* marketing* advertising campaign publicidad
      pubblicita publicite werbe* ecommerce`,
    hints: `designer graphic content copywriter advertising insights seo`,
  },
  supply: {
    says: `
      supply logistics logistic warehous* transport distribution purchas* procurement despatch dispatch inventory
      stock stores materials fleet sourcing haulage shipping
      einkauf* einkaufer* logistik* lager* versand* beschaffung* disposition fuhrpark*
      achat achats logistique entrepot magasin approvisionnement* magasinier acheteur acheteuse
      compras logistica almacen aprovisionamiento acquisti magazzin* spedizioni approvvigionament*
      inkoop* logistiek* magazijn* solathair soltair soirim loighistic* buying vendor freight customs import imports
      stockroom courier spedition* expeditie wareneingang* warenausgang* envios expediciones transportes transporte
      trasporti fournisseurs iompar*`,
    hints: `
      driver drivers forklift buyer planner demand planning fahrer chauffeur comprador* inkoper compratore autista
      conductor disponent* dispatcher cariste livreur repartidor approvisionneur approvisionneuse mulettista
      ceannaitheoir planification planung`,
  },
  production: {
    says: `
      production manufacturing manufactur* plant factory process processes processing packing packer packaging
      bottling maturing ripening
      herd ageing
      produktion* abfull* werk werks* werkleiter* werksleiter* fertigung* herstellung kaserei* maschinen* verpackung*
      usine fabrication conditionnement affinage fromagerie atelier
      produccion fabrica planta envasado procesos maduracion queseria
      produzione stabilimento confezionamento stagionatura caseificio
      productie* fabriek* inpak verpakking kaasmakerij tairg* thairg* deantus* monarcha* blending pasteuris*
      pasteuriz* drying evaporat* slicing cutting filling bakery brewery assembly industrial industriel industrielle
      brine curd plant* prozess* verfahrens* ligne`,
    hints: `
      cheesemak* cheesemaker* cheese dairy creamery milk butter *maker *making affineur* grader cellar farm farmer
      brewer baker butcher
      molkerei* kase* milch* maschinenfuhr* landwirt*
      fromager* quesero quesera casaro casara machine shift labourer laborer
      kaas* caisdeant* caise deiriocht* bainne laitier laitiere agriculteur agricultrice line workshop schicht*`,
  },
  operations: {
    says: `
      operations operational operation site facilities facility improvement lean ehs hse coo health environmental
      environment
      sustainability excellence
      betrieb* standort* umwelt* arbeitssicherheit nachhaltigkeit*
      exploitation operationnel* operationnelle
      operaciones operativo operativa
      operationeel operationele bedrijf* oibriochta* oibriocht* estates property building transformation hsw safety
      seguridad sicurezza`,
    hints: ``,
  },
  engineering: {
    says: `
      engineering maintenance refrigeration electrical mechanical automation utilities
      instandhaltung* wartung* elektro* technik
      mantenimiento manutenzione onderhoud* cothabhal* chothabhal* ingenierie ingegneria instrumentation reliability
      boiler hvac energy energie* betriebstechn* haustechnik electrique electromecanique travaux`,
    hints: `
      engineer engineers electrician fitter mechanic welder ingenieur* ingenieure ingeniero ingeniera ingegnere
      manutentore elektriker*
      elettricista electricista electricien mechaniker* mechatroniker* schlosser* monteur* innealtoir`,
  },
  finance: {
    says: `
      finance financial accounts accounting accountant accountancy cfo payroll treasury tax treasurer credit ledger
      finanz* rechnungswesen* kaufmannisch* buchhalt* steuer*
      financier financiere finances comptab* daf tresorerie
      financiero financiera finanzas contab* tesoreria
      finanziario finanziaria finanza contabil* amministrazione
      financieel financiele financien boekhoud* airgeadais chuntas* cuntas* cuntasoir controlling cost costing billing
      invoice invoicing payable payables receivable receivables fiscal lohn* revision administracion administratie
      nominas paie`,
    hints: `controller bookkeeper bursar actuary ragioniere ragioniera administration`,
  },
  people: {
    says: `
      hr people talent recruit* training apprenticeship learning chro personnel
      personal* drh rh ausbildung*
      humaines humanos umane formation formacion formazione
      personeel* acmhainni daonna hrd employee employees compensation reward engagement culture diversity workforce
      internship internships personale personal opleiding*`,
    hints: `recruiter trainer`,
  },
  it: {
    says: `
      it software cio cto erp network informatique informatica dsi edv cyber cloud devops database applications
      infrastructure helpdesk software* datenbank* netzwerk* informatico ict ciso`,
    hints: `
      data digital system systems systeme systemes systemadministrat* sistemas sistemi programmer developer
      informatik* informati* cyber web application technology developpeur programador informaticien`,
  },
  management: { says: '', hints: 'owner founder strategy corporate governance geschaftsleit* geschaftsfuhr* direction direccion direzione directie bainistiochta' },
};
