/** Common first names: the head of the US Census 1990 lists (public domain) and names of Britain, Ireland and Europe. */
const NAMES = new Set(
  `
  aaron abby abel abigail abraham ada adam addie adele adeline adrian adriana adrienne agnes aida aileen
  aimee aisling al alan albert alberta alberto aled alejandro alex alexander alexandra alexis alfonso
  alfred alfredo alice alicia alisa alisha alison allan allen allison alma alonzo alta alton alun alvin
  alyssa amanda amber amelia amelie amos amy ana andre andrea andres andrew andy angel angela angelia
  angelica angelina angeline angelo angharad angie anita anjali anke ann anna anne annette annie annika
  anthony antoinette antonia antonio aoife april archie arjun arlene armando arnold arthur arturo ashley
  astrid aubrey audrey aurora austin autumn barbara barry beatrice beatriz becky belinda ben benedikt
  benjamin bennie benny bernadette bernard bernice bert bertha bessie beth bethany betsy bette bettie
  betty beulah beverly bill billie billy bjorn blake blanca blanche bob bobbi bobbie bobby bonita bonnie
  boyd brad bradford bradley brandi brandon brandy brenda brendan brent brett brian bridget brittany
  brittney bronwyn brooke bruce bryan bryant byron caitlin caleb callie callum calvin cameron camille
  candace candice candy cara carl carla carlos carlton carmela carmen carol carole carolina caroline
  carolyn carrie carroll cary casey cassandra cassie catherine cathleen cathy catriona cecelia cecil
  cecile cecilia cedric celeste celia cerys cesar chad charity charlene charles charlie charlotte chelsea
  cheri cherie cheryl chester chiara chris christa christi christian christie christina christine
  christopher christy ciara ciaran cillian cindy claire clara clarence clarice clark claude claudette
  claudia clay clayton cleo clifford clifton clint clinton clyde cody colin colleen connie conor conrad
  constance consuelo cora corey corinne cormac cornelius cory courtney craig cristina crystal curtis
  cynthia dafydd daisy dale dallas damon dan dana daniel danielle danny daphne dara darin darla darlene
  darnell darrel darrell darren darrin darryl daryl dave david dawn dean deana deanna debbie debora
  deborah debra declan dee delbert delia della delores deloris dena denise dennis derek derrick desiree
  devin dewey dewi dexter diana diane dianna dianne dina dixie dolly dolores domingo dominic dominick
  dominique don donald donna donnie dora doreen doris dorothea dorothy dorthy doug douglas doyle drew
  duane dustin dwayne dwight eamon earl earnest ebony ed eddie edgar edith edmond edmund edna eduardo
  edward edwin effie eileen eilidh eimear elaine elbert eleanor elena elias elijah elisa elisabeth elise
  elizabeth ella ellen ellis elma elmer eloise elsa elsie eluned elva elvira emanuel emer emilio emily
  emma emmett emrys enrique eoin eric erica erick erik erika erin erma ernest ernestine ernesto ervin
  esperanza essie estella estelle ester esther ethel etta euan eugene eugenia eula eunice eva evan evelyn
  everett ewan faith fannie fay faye felicia felipe felix fergus fern fernando ffion finlay fionn flora
  florence floyd forrest frances francine francis francisca francisco frank frankie franklin fraser fred
  freda freddie frederick fredrick frieda gabriel gabriela gabrielle gail gale gareth garrett garry gary
  gayle gene geneva genevieve geoffrey george georgia gerald geraldine gerard gerardo gertrude gethin
  gilbert gilberto giles gina ginger giulia gladys glen glenda glenn glenna gloria goldie gordon grace
  gracie graciela grady grainne grant greg gregg gregory greig greta gretchen guadalupe guillermo gustavo
  guy gwen gwendolyn gwenllian hamish hannah hans harold harriet harry harvey hattie hazel heather hector
  heidi heike helen helena helene henrietta henry herbert herman hilda hiroshi holly homer hope horace
  howard hubert hugh hugo iain ian ida idris ignacio imogen imogene ina inez ingrid ira irene iris irma
  irvin irving isaac isabel isabelle isla ismael isobel israel iva ivan ivy jack jackie jaclyn jacob
  jacqueline jacquelyn jago jaime jake james jamie jan jana jane janelle janet janette janice janie janine
  janis jared jasmine jason jasper javier jay jayne jean jeanette jeanine jeanne jeannette jeannie
  jeannine jeff jeffery jeffrey jenifer jenna jennie jennifer jenny jerald jeremiah jeremy jermaine jerome
  jerry jesse jessica jessie jesus jewel jewell jill jillian jim jimmie jimmy jo joan joann joanna joanne
  jocelyn jodi jodie jody joe joel joey johanna john johnathan johnnie johnny jolene jon jonathan jonathon
  joni jordan jorge jose josefina joseph josephine josh joshua josie joy joyce juan juana juanita judith
  judy julia julian julie julio julius june jurgen justin justine kara karen kari karin karl karla kate
  katharine katherine kathleen kathryn kathy katie katrina kay kayla keisha keith kelley kelli kellie
  kelly kelsey kelvin ken kendra kenneth kenny kent kerensa keri kerri kerry kevin kieran kim kimberley
  kimberly kirk kirsten krista kristen kristi kristie kristin kristina kristine kristopher kristy krystal
  kurt kyle lacey ladonna lamar lana lance lara larry lars latasha latonya latoya laura laurel lauren
  laurence laurie laverne lawrence lea leah leanne lee leigh lela leland lena lenora leo leola leon leona
  leonard leroy lesley leslie lester leticia levi lewis lila lillian lillie lily linda lindsay lindsey
  ling lionel lisa lizzie llinos lloyd lois lola lonnie lora loren lorena lorene lorenzo loretta lori
  lorie lorna lorraine lottie lou louis louise lourdes lowell lowri luc luca lucas lucia lucile lucille
  lucinda lucy luella luis luke lula lupe luther luz lydia lyle lynda lynette lynn lynne mabel mable mack
  madeline mae maeve maggie mairead malcolm mamie mandy manuel manuela marc marcella marcia marco marcos
  marcus marcy maren margaret margarita margie margo margret marguerite maria marian marianne maribel
  marie marijke marilyn marina mario marion marisa marisol marissa maritza marjorie mark marla marlene
  marlon marsha marshall marta martha martin martina marty marvin mary maryann mathew matt matteo matthew
  mattie maude maureen maurice mavis max maxine may mayra megan meghan mei melanie melba melinda melissa
  melody melvin mercedes meredith merfyn merle mhairi michael micheal michele michelle miguel mike mildred
  millie milton mindy minnie miranda miriam misty mitchell moira mollie molly mona monica monique morag
  morgan morris morwenna moses muriel myra myrna myron myrtle nadine nancy naomi natalie natasha nathan
  nathaniel neal neil nell nellie nelson nerys nettie niall niamh nicholas nichole nick nicolas nicole
  nikki nina noah noel nora norma norman nuala oisin ola olga olive oliver olivia ollie oluchi omar opal
  ora orla orlando orville oscar otis owen pablo padraig paige pam pamela pat patrica patrice patricia
  patrick patsy patti patty paul paula paulette pauline pearl pedro peggy penny percy perry pete peter
  petra phil philip phillip phyllis pierre piers pieter pippa polly poppy preston priscilla priya rachael
  rachel rachelle rafael ralph ramiro ramon ramona randal randall randolph randy raquel raul ray raymond
  reba rebecca rebekah regina reginald rena rene renee rex rhiannon rhona rhonda rhys ricardo richard rick
  rickey ricky rita robbie robert roberta roberto robin robyn rochelle roderick rodney rodolfo rogelio
  roger rohan roisin roland rolando roman ron ronald ronan ronda ronnie roosevelt rosa rosalie rosalind
  rosario rose rosemarie rosemary rosetta rosie ross roxanne roy ruben ruby rudolph rudy rufus rupert
  russell ruth ryan sabrina sadie sallie sally salvador salvatore sam samantha sammy samuel sandra sandy
  santiago santos saoirse sara sarah saul scott seamus sean selma sergio seth shana shane shanna shannon
  shari sharon shaun shauna shawn shawna sheena sheila shelby sheldon shelia shelley shelly sheri sherman
  sherri sherrie sherry sheryl shirley sidney silvia simon sinead siobhan sioned socorro sondra sonia
  sonja sonya sophia sophie spencer stacey staci stacie stacy stanley stefanie stella stephanie stephen
  steve steven stewart stuart sue summer susan susana susanne susie suzanne sven sybil sylvester sylvia
  tabitha tamara tami tamika tammie tammy tamsin tanya tara tasha taylor ted terence teresa teri terrance
  terrell terrence terri terry thelma theodore theresa therese thomas tiffany tim timmy timothy tina
  tobias toby todd tom tomas tommie tommy toni tonia tony tonya torquil tracey traci tracie tracy travis
  trevor tricia trina trisha troy trudy tyler tyrone una ursula valerie van vanessa velma vera verna
  vernon veronica vicki vickie vicky victor victoria vincent viola violet virgil virginia vivian wade
  wallace walter wanda warren wayne wendell wendy wesley whitney wilbert wilbur wilfred willa willard
  william willie willis wilma wilson winifred winnie winston wm woodrow yolanda yuki yvette yvonne zachary
`
    .trim()
    .split(/\s+/),
);

/** True for a common first name. @param word in lower case */
export const isFirstName = (word: string): boolean => NAMES.has(word);
