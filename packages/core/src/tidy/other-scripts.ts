/** The parts of a name. */
interface Parts {
  first: string;
  middle: string;
  last: string;
}

const EAST_ASIAN = /^[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}ー々・·]+$/u;
const FOREIGN = /[・·]/u;
const CYRILLIC = /^[\p{Script=Cyrillic}.\-’']+$/u;
const ARABIC = /^[\p{Script=Arabic}\p{M}]+$/u;

/** Family names of two signs: from memory, the common ones. */
const TWO_SIGNS = new Set(
  '欧阳 歐陽 司马 司馬 诸葛 諸葛 上官 东方 東方 皇甫 尉迟 尉遲 公孙 公孫 令狐 慕容 남궁 황보 제갈 사공 선우 독고'.split(
    ' ',
  ),
);
/** From so many signs of Han on it is a Japanese name, or one with a family name of two. */
const TWO_AND_TWO = 4;

const PATRONYMIC = /(ович|евич|йович|ьич|кич|мич|овна|евна|ична|івна|ївна)$/iu;
const FAMILY = /(ов|ев|ёв|ова|ева|ёва|ский|ская|цкий|цкая|енко|ук|юк|ян)$/iu;

/** Begin a family name. */
const ARABIC_PARTICLES = new Set('بن ابن بنت أبو ابو آل'.split(' '));
const SERVANT = 'عبد';

/**
 * Names in scripts whose order or joints are their own: East Asian names have the family name first (Unicode CLDR, person names, order by
 * locale: surname first for ja, ko, zh), with or without a space; of Cyrillic ones the patronymic tells the order; an Arabic عبد belongs to the
 * word after it, and بن begins the family name.
 *
 * @returns null for all other names
 */
export function otherScript(words: readonly string[]): Parts | null {
  if (words.length === 0) return null;
  if (words.every((word) => EAST_ASIAN.test(word))) return eastAsian(words);
  if (words.length > 1 && words.every((word) => CYRILLIC.test(word))) return cyrillic(words);
  if (words.length > 1 && words.every((word) => ARABIC.test(word))) return arabic(words);
  return null;
}

function eastAsian(words: readonly string[]): Parts {
  const [one, ...others] = words;
  if (others.length > 0) return { first: others.join(' '), middle: '', last: one! };
  // What a dot parts is a name from elsewhere, in its own order.
  if (FOREIGN.test(one!)) {
    const parts = one!.split(FOREIGN).filter(Boolean);
    return { first: parts[0] ?? '', middle: parts.slice(1, -1).join(' '), last: parts.length > 1 ? parts.at(-1)! : '' };
  }
  const signs = [...one!];
  if (signs.length === 1) return { first: one!, middle: '', last: '' };
  const family = signs.length > 2 && (TWO_SIGNS.has(signs.slice(0, 2).join('')) || signs.length >= TWO_AND_TWO) ? 2 : 1;
  return { first: signs.slice(family).join(''), middle: '', last: signs.slice(0, family).join('') };
}

function cyrillic(words: readonly string[]): Parts | null {
  const [a, b, c] = words;
  if (words.length === 3 && PATRONYMIC.test(c!) && !PATRONYMIC.test(b!)) return { first: b!, middle: c!, last: a! };
  if (words.length === 2 && FAMILY.test(a!) && !FAMILY.test(b!)) return { first: b!, middle: '', last: a! };
  return null;
}

function arabic(words: readonly string[]): Parts {
  const first = words[0] === SERVANT && words.length > 1 ? 2 : 1;
  const particle = words.findIndex((word, i) => i >= first && ARABIC_PARTICLES.has(word));
  const last = particle > 0 ? particle : Math.max(first, words.length - 1);
  return {
    first: words.slice(0, first).join(' '),
    middle: words.slice(first, last).join(' '),
    last: words.slice(last).join(' '),
  };
}
