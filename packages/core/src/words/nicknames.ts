/** Full names and their short forms; a short form may belong to several. Common knowledge, collected by hand. */
const GROUPS = `
abigail abby abbie gail / adam ad / adrian ade / agnes aggie nessa / alan al allan allen / albert al bert bertie / alexander alex al sandy alec alasdair alistair xander lex / alexandra alex sandra lexi alexa sandy
alfred alf alfie fred / alice ali ally / alison ali ally alli allison / amanda mandy manda / amelia amy millie mia / andrew andy drew / angela angie ange / ann anne annie anna nan nancy / annabel bella annie / anthony tony ant antony
antonia toni tonia / archibald archie / arthur art artie / augustus gus / barbara barb babs barbie / barnaby barney / bartholomew bart / beatrice bea trixie bee / benedict ben / benjamin ben benny benji / bernadette bernie detta / bernard bernie
bethany beth / brendan bren / brian bryan / bridget biddy bridie bríd / bradley brad / cameron cam / candice candy / carl karl / carol carole caroline carrie / caroline carol carrie caro lina / catherine cathy kate katie cath kitty cat catriona kathy katy katherine kathryn kathleen kit kay
charles charlie chuck chas charley / charlotte charlie lottie char / christine chris chrissie tina christina / christopher chris kit topher kris / clifford cliff / constance connie / cornelius con neil / craig / cynthia cindy / daniel dan danny / danielle dani / david dave davy davey dai
deborah deb debbie debs debra / dennis den denny / derek del / dominic dom nic / donald don donnie / donna / dorothy dot dottie dolly / douglas doug dougie / duncan / edmund ed eddie ned / edward ed eddie ted teddy ned / edwin ed eddie / eileen / eleanor ellie nell nora lena / elizabeth liz beth lizzie betty betsy eliza libby lisa bess elsie lizzy ellie
ellen nell ellie / emily em emma millie / emma em / eric rick / ernest ernie / esther hetty / eugene gene / evelyn eve evie / ffion fi / fiona fi / florence flo florrie / frances fran francie fanny frankie / francis frank frankie fran / franklin frank / frederick fred freddie rick / gabriel gabe / gareth gary gaz
gary gaz garry / geoffrey geoff jeff jeffrey / george georgie / gerald gerry jerry / gerard gerry ger / gillian gill jill gilly / gordon gord / graham gray / gregory greg / gwendolyn gwen / gwenllian gwen / hannah / harold harry hal / harriet hattie harry / heather / helen nell helena / henry harry hank hal / herbert bert herb
howard howie / hubert hugh bert / hugh hughie / ian iain / imogen immy / isaac ike zac / isabella bella izzy isabel isobel belle / jacob jake jack / jacqueline jackie jacqui / james jim jimmy jamie jas jem / jane janey jenny / janet jan / janice jan / jason jay / jasper jas / jean jeanie / jennifer jen jenny jenni / jeremy jem jerry
jessica jess jessie / joan joanie / joanna jo joanne / john jack johnny jon / jonathan jon jonny john / joseph joe joey jos / josephine jo josie / joshua josh / joyce / judith judy jude / julia julie jules / julian jules / justin / karen / kenneth ken kenny / kevin kev / kimberly kim / kirsty kirsten / laura laurie / lawrence larry laurie lawrie laurence
leonard len lenny leo / leslie les lesley / lillian lily lil / linda lindy lyn / louis lou louie lewis / louise lou lulu / lucy lou / luke / madeleine maddie maddy / malcolm mal / marcus marc mark / margaret maggie meg peggy marge madge mags rita greta / marjorie marge / mark marc marcus / martha marty / martin marty / mary molly polly mamie
matilda tilly mattie / matthew matt mat / maureen mo / maurice mo morris / maximilian max / megan meg / melanie mel / melissa mel lissa / michael mike mick mickey micky mikey / michelle shell shelly chelle / mildred millie / mohammed mo mohamed muhammad / morgan mo / nadine / nancy nan / natalie nat tash / natasha tash nat / nathan nat nate nathaniel
nathaniel nat nate / niall neil / nicholas nick nicky nico / nicola nicky nic nikki / nigel nige / norman norm / oliver ollie oli / olivia liv livvy / oscar / owen / pamela pam / patricia pat patsy trish tricia patty / patrick pat paddy padraig rick / paul / paula / penelope penny / peter pete / philip phil pip phillip / philippa pip pippa / phyllis phyl
rachel rach rachael / raymond ray / rebecca becky bex becca beck / reginald reg reggie / rhiannon rhi / rhona ro / richard rick dick ricky richie rich dickie / robert bob rob bobby robbie bert robin / roberta bobbie / roderick rod roddy / rodney rod / roger rog / roland rollo roly / ronald ron ronnie / rosemary rose rosie / rosalind roz ros
rowena ro / rupert / russell russ / ruth / sadie sarah / samantha sam sammy / samuel sam sammy / sandra sandy / sarah sally sadie / saoirse / sean shaun shane / sebastian seb bastian / seamus shay / sharon shaz / shirley / sidney sid sydney / simon si / siobhan / sophia sophie / stanley stan / stephanie steph / stephen steve stevie steven
stewart stu stuart / susan sue susie suzie suzy susanna / suzanne sue suzy / sylvia syl / tamsin tammy / terence terry / theodore theo ted teddy / theresa terri tess tessa teresa / thomas tom tommy / timothy tim timmy / tobias toby / torquil / tracy trace tracey / tristan / ursula / valerie val / vanessa nessa / vernon vern / veronica ronnie vera / victor vic / victoria vicky vic tori vikki
vincent vince vinny / virginia ginny / walter walt wally / wendy / wilfred wilf / william bill will billy willy liam wills / winifred win winnie fred / yvonne / zachary zach zac / zoe
`;

const groupNames = GROUPS.split(/\s*[/\n]\s*/)
  .filter(Boolean)
  .map((group) => group.trim().split(' '));
const groupsOf = new Map<string, number[]>();
const fullName = new Map<string, string>();
for (const [i, names] of groupNames.entries()) {
  for (const name of names) {
    groupsOf.set(name, [...(groupsOf.get(name) ?? []), i]);
    if (!fullName.has(name)) fullName.set(name, names[0]!);
  }
}

/** True when two first names, in lower case, can be forms of one name: bill and william. */
export function areForms(a: string, b: string): boolean {
  if (a === b) return true;
  const groups = groupsOf.get(a);
  const others = groups && groupsOf.get(b);
  return others !== undefined && groups!.some((group) => others.includes(group));
}

/** A full name for a short form; a name without one is its own. Stable, for blocking. */
export const fullForm = (name: string): string => fullName.get(name) ?? name;

/** All forms of a name in lower case, itself first: william, bill, will ... */
export const formsOf = (name: string): string[] => [
  ...new Set([name, ...(groupsOf.get(name) ?? []).flatMap((i) => groupNames[i]!)]),
];
