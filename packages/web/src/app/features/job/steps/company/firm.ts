import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { SieveStep } from '@sieve/core';
import { companyOptions, type SiteAnswer } from '@sieve/core/steps/company/options';
import { servicesIn, FATE_WORDS, say, type FirmRow, type FirmView } from '@sieve/contract';
import { Session } from '../../../../state/session';
import { valueOf } from '../../../../state/asked';
import { CountPipe } from '../../../../ui/count';
import { Icon } from '../../../../ui/icon/icon';
import { MoneyPipe } from '../../../../ui/money';
import { Shortcuts } from '../../../../ui/shortcuts/shortcuts';
import { sureWords } from '../../../../ui/sure-words';
import { Status } from '../../../../ui/status/status';
import { VerdictMark } from '../../../../ui/verdict-mark';
import { dayWords } from '../../../../ui/when';
import { AnswerMark, ANSWER_WORDS } from './answer-mark';
import { FirmStore } from './firms-stores';

type Fate = 'pass' | 'aside' | 'look' | 'waits';
const MOST_SENTENCES = 8;
const SITE_WORDS: Record<NonNullable<FirmView['site']>['state'], string> = {
  read: '',
  parked: 'The domain is for sale; nobody uses it.',
  'no-domain': 'There is no such domain.',
  'no-site': 'There is no website at this domain.',
  refused: 'Its robots.txt keeps all pages to itself.',
  'try-later': 'It asked to be asked later; ask again.',
  'no-answer': 'It did not answer; ask again.',
};

/** One company: what its website answers and by which sentences, what is known of it and what that cost, and its people. */
@Component({
  selector: 'cs-firm',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [MatButtonModule, Icon, CountPipe, MoneyPipe, Status, VerdictMark, AnswerMark],
  providers: [FirmStore],
  templateUrl: './firm.html',
  styleUrl: './firm.scss',
})
export class Firm {
  private readonly store = inject(FirmStore);
  private readonly settings = inject(Session).settings;
  readonly jobId = input.required<number>();
  readonly step = input.required<SieveStep>();
  readonly firmKey = input.required<string>();
  readonly version = input(0);
  readonly answered = output<{ firm: FirmRow; answer: SiteAnswer }>();
  readonly fated = output<{ fate: 'aside' | 'keep'; recordIds: number[] }>();
  /** Whether two companies are one. */
  readonly kin = output<{ a: string; b: string; same: boolean }>();
  /** Its domain, where that was in doubt. */
  readonly domain = output<{ domain: string; recordIds: number[] }>();
  /** The name that all of its people's records shall have. */
  readonly named = output<{ name: string; recordIds: number[] }>();
  readonly chosen = output<string>();
  readonly person = output<{ id: number; state: Fate }>();

  protected readonly request = this.store.asked;
  /** The one that is wanted, not the one that was there before it. */
  protected readonly firm = computed(() => {
    const firm = valueOf(this.request());
    return firm?.key === this.firmKey() ? firm : null;
  });
  protected readonly question = computed(() => companyOptions.parse(this.step().options).question);
  protected readonly siteWords = computed(() => SITE_WORDS[this.firm()?.site?.state ?? 'read']);
  protected readonly sentences = computed(() => this.firm()?.site?.speaking.slice(0, MOST_SENTENCES) ?? []);
  protected readonly counted = computed(() => {
    const speaking = this.firm()?.site?.speaking ?? [];
    const yes = speaking.filter(({ speaks }) => speaks === 'for').length;
    return `${yes} for, ${speaking.length - yes} against`;
  });
  protected readonly reason = computed(() => {
    const firm = this.firm();
    return firm && firm.state !== 'pass' ? say(FATE_WORDS[firm.code] ?? firm.code, firm.why) : '';
  });
  protected readonly doubtful = computed(() => {
    const firm = this.firm();
    return firm?.state === 'look' && firm.code === 'domain-doubtful';
  });
  protected serviceName = (id: string): string =>
    servicesIn(this.settings()).find((service) => service.id === id)?.name ?? id;
  protected readonly words = ANSWER_WORDS;
  protected readonly day = dayWords;
  protected readonly answers: readonly { answer: SiteAnswer; key: string }[] = [
    { answer: 'yes', key: 'Y' },
    { answer: 'no', key: 'N' },
    { answer: 'unclear', key: 'C' },
  ];

  constructor() {
    this.store.load(
      computed(() => ({ jobId: this.jobId(), step: this.step().id, key: this.firmKey(), version: this.version() })),
    );
    const says = (answer: SiteAnswer) => () =>
      this.doubtful() && answer !== 'unclear'
        ? this.owns(answer === 'yes')
        : this.firm() && this.question()
          ? this.say(answer)
          : false;
    inject(Shortcuts).use({
      y: says('yes'),
      n: says('no'),
      c: says('unclear'),
      x: () => this.set('aside'),
      r: () => this.set('keep'),
      o: () => this.open(),
      s: () => this.judge(true),
      d: () => this.judge(false),
    });
  }

  protected say(answer: SiteAnswer) {
    this.answered.emit({ firm: this.firm()!, answer });
  }

  /** Says whether a domain that is in doubt is its own. */
  protected owns(isOwn: boolean) {
    const { why, contactIds } = this.firm()!;
    if (isOwn) this.domain.emit({ domain: String(why['domain']), recordIds: contactIds });
    else this.set('keep');
  }

  protected set(fate: 'aside' | 'keep') {
    const firm = this.firm();
    if (firm) this.fated.emit({ fate, recordIds: firm.contactIds });
  }

  /** Says of the likeliest twin whether it is the same company; false where there is none. */
  protected judge(same: boolean) {
    const firm = this.firm();
    const twin = firm?.twins[0];
    if (!firm || !twin) return false;
    return this.kin.emit({ a: firm.key, b: twin.key, same });
  }

  protected readonly sure = sureWords;
  protected addressOf = (path = '/'): string => `https://${this.firm()!.domain}${path}`;

  private open() {
    const path = this.sentences()[0]?.path;
    if (this.firm()?.domain) window.open(this.addressOf(path), '_blank', 'noopener');
  }

  protected learned = ({ by, yes, answer }: FirmRow): string =>
    by === 'hand'
      ? 'answered by you'
      : by === 'learned'
        ? `learned, ${sureWords(answer === 'no' ? 1 - yes : yes)}`
        : '';

  /** A sentence in three parts: before the word that it holds, the word, and after. */
  protected parts({ text, word }: { text: string; word: string }): [string, string, string] {
    const at = text.indexOf(word);
    return [text.slice(0, at), word, text.slice(at + word.length)];
  }
}
