import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { signalStore } from '@ngrx/signals';
import { max } from 'd3-array';
import { scaleLinear } from 'd3-scale';
import type { SieveStep, VerdictReason } from '@sieve/core';
import { verifyOptions } from '@sieve/core/steps/verify/options';
import { REASON_WORDS, type Job, type VerdictCounts } from '@sieve/contract';
import { EMPTY } from 'rxjs';
import { valueOf, withAsked } from '../../../../state/asked';
import { CountPipe } from '../../../../ui/count';
import { Status } from '../../../../ui/status/status';
import { VerdictMark } from '../../../../ui/verdict-mark';

const VERDICTS = ['valid', 'risky', 'invalid', 'unknown'] as const;
type Verdict = (typeof VERDICTS)[number];
const FILLS: Record<Verdict, string> = {
  valid: 'var(--spruce)',
  risky: 'var(--saffron)',
  invalid: 'var(--brick)',
  unknown: 'var(--ink-3)',
};
/** What a mailing should be at most of risky ones. Common practice, no source. */
const MOST_RISKY = 0.2;
const CountsStore = signalStore(
  withAsked((api, asked: { job: number; version: number } | null) => (asked ? api.verdictCounts(asked.job) : EMPTY)),
);

/** Verdicts of a job: what is advised of them in a line, and by reason, domain and source when it is opened. */
@Component({
  selector: 'cs-verdict-strip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink, CountPipe, Status, VerdictMark],
  providers: [CountsStore],
  template: `
    @if (total() > 0) {
      <details (toggle)="open.set(box.open)" #box>
        <summary>
          <span class="bar" role="img" [attr.aria-label]="label()">
            @for (part of parts(); track part.verdict) {
              <i [style.width.%]="(100 * part.count) / total()" [style.background]="part.fill"></i>
            }
          </span>
          <span class="advice" [class.warn]="!advice().isGood">{{ advice().words }}</span>
          <span class="more">By reason, domain and source</span>
        </summary>
        <div class="three">
          <table>
            <caption>
              By reason
            </caption>
            @for (row of reasons(); track row.key) {
              <tr>
                <th scope="row" [title]="row.words">
                  <cs-verdict-mark [verdict]="row.verdict" />
                  <a routerLink="." [queryParams]="row.link" queryParamsHandling="merge">{{ row.words }}</a>
                </th>
                <td class="num">{{ row.count | count }}</td>
                <td class="line"><i [style.width.%]="row.share" [style.background]="row.fill"></i></td>
              </tr>
            }
          </table>
          @for (table of tables(); track table.title) {
            <table>
              <caption>
                {{
                  table.title
                }}
              </caption>
              @for (row of table.rows; track row.name) {
                <tr>
                  <th scope="row" [title]="row.name" [class.mono]="table.isDomain">
                    @if (table.isDomain) {
                      <a routerLink="." [queryParams]="{ q: '@' + row.name, why: null }" queryParamsHandling="merge">{{
                        row.name
                      }}</a>
                    } @else {
                      <a routerLink="." [queryParams]="{ show: 'sources' }">{{ row.name }}</a>
                    }
                  </th>
                  <td class="num" [title]="row.words">{{ row.valid | count }} of {{ row.all | count }}</td>
                  <td class="line" [title]="row.words">
                    @for (part of row.parts; track part.verdict) {
                      <i [style.width.%]="part.share" [style.background]="part.fill"></i>
                    }
                  </td>
                </tr>
              }
            </table>
          }
        </div>
        @if (ages(); as ages) {
          <p class="ages">
            On
            <input
              type="date"
              class="field"
              aria-label="Day on which verdicts are too old"
              [value]="day()"
              (change)="pickDay($event)"
            />
            <b class="num">{{ ages.stale | count }}</b> of <span class="num">{{ ages.all | count }}</span> verdicts are
            older than {{ freshDays() }} days and are asked again before they leave.
          </p>
        }
        <cs-status [request]="store.asked()" what="the counts" />
      </details>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 0 16px 8px;
      font-size: 12px;
    }
    summary {
      display: flex;
      gap: 12px;
      align-items: center;
      cursor: pointer;
    }
    .bar,
    .line {
      display: flex;
      overflow: hidden;
      height: 9px;
      border-radius: 3px;
    }
    .bar {
      flex: 0 0 190px;
    }
    .bar i,
    .line i {
      height: 100%;
    }
    .advice {
      flex: 1;
      color: var(--ink-2);
    }
    .warn {
      color: var(--saffron-ink);
    }
    .more {
      color: var(--spruce);
      text-decoration: underline;
    }
    .ages {
      margin: 6px 0 0;
      color: var(--ink-2);
    }
    .ages .field {
      margin-right: 6px;
      height: 28px;
      padding: 0 6px;
    }
    .three {
      display: grid;
      grid-template-columns: repeat(3, minmax(0, 1fr));
      gap: 20px;
      align-items: start;
      max-height: 250px;
      margin-top: 8px;
      overflow: auto;
    }
    table {
      table-layout: fixed;
      width: 100%;
      border-collapse: collapse;
    }
    caption {
      padding-bottom: 3px;
      color: var(--ink-2);
      text-align: left;
    }
    th {
      width: 46%;
      overflow: hidden;
      font-weight: 400;
      text-align: left;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    th,
    td {
      padding: 2px 6px 2px 0;
    }
    cs-verdict-mark {
      margin-right: 6px;
      vertical-align: -2px;
    }
    td.num {
      width: 24%;
      text-align: right;
    }
    tr .line {
      display: table-cell;
      height: 15px;
    }
    tr .line i {
      display: inline-block;
      height: 9px;
    }
  `,
})
export class VerdictStrip {
  readonly job = input.required<Job>();
  readonly step = input.required<SieveStep>();
  protected readonly store = inject(CountsStore);
  protected readonly open = signal(false);
  private readonly counts = computed(() => this.job().summary?.verdicts);
  protected readonly total = computed(() =>
    VERDICTS.reduce((sum, verdict) => sum + (this.counts()?.[verdict] ?? 0), 0),
  );
  protected readonly parts = computed(() =>
    VERDICTS.map((verdict) => ({ verdict, count: this.counts()?.[verdict] ?? 0, fill: FILLS[verdict] })),
  );
  protected readonly label = computed(() =>
    this.parts()
      .map(({ verdict, count }) => `${count} ${verdict}`)
      .join(', '),
  );
  /** Of those set aside here, by verdict and reason, as the step counts them; the valid ones passed. */
  private readonly why = computed(() => this.job().summary?.steps.find(({ id }) => id === this.step().id)?.why ?? {});
  protected readonly reasons = computed(() => {
    const valid = this.counts()?.valid ?? 0;
    const aside = Object.entries(this.why()).flatMap(([key, count]) => {
      const [code, verdict, reason] = key.split(' ') as ['verdict', Verdict, VerdictReason];
      return code === 'verdict' && verdict
        ? [{ key, verdict, count, words: REASON_WORDS[reason], link: { fate: 'aside', why: key } }]
        : [];
    });
    const all = [
      {
        key: 'valid',
        verdict: 'valid' as Verdict,
        count: valid,
        words: REASON_WORDS.accepted,
        link: { fate: 'pass', why: null },
      },
      ...aside.sort((a, b) => b.count - a.count),
    ];
    const share = scaleLinear([0, max(all, ({ count }) => count) || 1], [0, 100]);
    return all.map((row) => ({ ...row, fill: FILLS[row.verdict], share: share(row.count) }));
  });
  protected readonly tables = computed(() => {
    const counts = valueOf(this.store.asked());
    if (!counts) return [];
    return [
      { title: 'By domain, valid of all', isDomain: true, rows: rowsOf(counts.domains) },
      { title: 'By source, valid of all', isDomain: false, rows: rowsOf(counts.sources) },
    ];
  });
  /** What is advised of a mailing of the valid and the risky ones. */
  protected readonly advice = computed(() => {
    const { valid = 0, risky = 0 } = this.counts() ?? {};
    const could = valid + risky;
    if (could === 0) return { isGood: true, words: this.label() };
    const percent = Math.round((100 * valid) / could);
    const catchAll = this.why()['verdict risky catch-all'] ?? 0;
    const isGood = risky <= MOST_RISKY * could;
    const mix = `${valid.toLocaleString('en-GB')} valid and ${risky.toLocaleString('en-GB')} risky, ${percent} to ${100 - percent}`;
    return {
      isGood,
      words: isGood
        ? `${mix}: within the usual 80 to 20, also with the risky ones.`
        : catchAll > valid
          ? `${mix}: catch-all would be the majority. Send the valid ones alone.`
          : `${mix}: more risky than the usual 80 to 20. With at most ${Math.floor(valid / 4).toLocaleString('en-GB')} of them it holds.`,
    };
  });

  /** In a month, at first. */
  protected readonly day = signal(dayIn(30));
  protected readonly freshDays = computed(() => verifyOptions.parse(this.step().options).freshDays);
  /** How many verdicts are too old when the day ends. */
  protected readonly ages = computed(() => {
    const until = valueOf(this.store.asked())?.freshUntil ?? [];
    const sum = (of: typeof until) => of.reduce((total, { count }) => total + count, 0);
    const ends = new Date(`${this.day()}T23:59:59`).getTime();
    return until.length > 0 ? { all: sum(until), stale: sum(until.filter(({ at }) => at <= ends)) } : null;
  });

  protected pickDay({ target }: Event) {
    const { value } = target as HTMLInputElement;
    if (value !== '') this.day.set(value);
  }

  constructor() {
    this.store.load(computed(() => (this.open() ? { job: this.job().id, version: this.job().version } : null)));
  }
}

/** The day in so many days, here. */
function dayIn(days: number): string {
  const day = new Date();
  day.setDate(day.getDate() + days);
  const two = (n: number) => String(n).padStart(2, '0');
  return `${day.getFullYear()}-${two(day.getMonth() + 1)}-${two(day.getDate())}`;
}

function rowsOf(counts: VerdictCounts['domains']) {
  const allOf = (row: VerdictCounts['domains'][number]) => VERDICTS.reduce((sum, verdict) => sum + row[verdict], 0);
  const share = scaleLinear([0, max(counts, allOf) ?? 1], [0, 100]);
  return counts.map((row) => ({
    name: row.name,
    valid: row.valid,
    all: allOf(row),
    words: VERDICTS.map((verdict) => `${row[verdict]} ${verdict}`).join(', '),
    parts: VERDICTS.map((verdict) => ({ verdict, fill: FILLS[verdict], share: share(row[verdict]) })),
  }));
}
