import { afterNextRender, ChangeDetectionStrategy, Component, effect, inject, Injector, input } from '@angular/core';
import {
  type AbstractControl,
  type FormArray,
  NonNullableFormBuilder,
  ReactiveFormsModule,
  type ValidationErrors,
  Validators,
} from '@angular/forms';
import { MatAutocompleteModule } from '@angular/material/autocomplete';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { isTimeZone, type FinderSetting, type Settings } from '@sieve/contract';
import { toSignal } from '@angular/core/rxjs-interop';
import { map, startWith } from 'rxjs';
import { Api } from '../../api/api';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { Session } from '../../state/session';
import { SuppressionList, SuppressionsStore } from './suppression-list';
import { ShapesList } from './shapes-list';
import {
  linesIn,
  namePartsIn,
  namePartsOnly,
  namePartsText,
  OwnWords,
  titleWordsIn,
  titleWordsOnly,
  titleWordsText,
} from './own-words';
import { Icon } from '../../ui/icon/icon';
import { Notices } from '../../ui/notices';
import { Shortcuts } from '../../ui/shortcuts/shortcuts';

const TIME_ZONES = Intl.supportedValuesOf('timeZone');

/** Finders with price, pace and key; how mail servers are asked; who must not be contacted. */
@Component({
  selector: 'cs-settings',
  host: { class: 'panes' },
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [
    ShapesList,
    OwnWords,
    SuppressionList,
    ReactiveFormsModule,
    MatAutocompleteModule,
    MatButtonModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatInputModule,
    Icon,
  ],
  providers: [SuppressionsStore],
  templateUrl: './settings.html',
  styleUrl: './settings.scss',
})
export class SettingsScreen {
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly session = inject(Session);
  private readonly decisions = inject(Decisions);
  private readonly builder = inject(NonNullableFormBuilder);
  private readonly doing = inject(Doing);
  private readonly injector = inject(Injector);
  private readonly suppressions = inject(SuppressionsStore);
  /** A part to begin at, by the address. */
  readonly part = input<string>();
  protected readonly form = this.builder.group({
    currency: ['GBP', [Validators.required, Validators.pattern(/^[A-Z]{3}$/)]],
    timeZone: ['', timeZoneOrNone],
    nameServer: [''],
    finders: this.builder.array<ReturnType<SettingsScreen['finderForm']>>([]),
    directory: this.builder.group({
      name: [''],
      url: ['', Validators.pattern(/^https?:\/\/\S+$/)],
      key: [''],
      perSecond: [1, Validators.min(0.01)],
      simulated: [false],
    }),
    companyService: this.serviceForm('companies'),
    topicService: this.serviceForm('topics'),
    languageModel: this.builder.group({ ...this.serviceForm('reader').controls, model: [''] }),
    lists: this.builder.group({
      freeMail: [''],
      disposableMail: [''],
      companyWords: [''],
      titleWords: ['', titleWordsOnly],
      legalForms: [''],
      nameParts: ['', namePartsOnly],
    }),
    web: this.builder.group({
      simulatedHosts: [''],
      simulatedAt: ['', Validators.pattern(/^(\S+:\d+)?$/)],
      perSitePerSecond: [1, [Validators.min(0.01), Validators.max(100)]],
    }),
    pace: this.builder.group(
      {
        rowsADay: [2500, Validators.min(0)],
        rowsARun: [0, Validators.min(0)],
        from: ['08:30', Validators.required],
        to: ['17:30', Validators.required],
        workingDays: [true],
      },
      { validators: hasHours },
    ),
    mail: this.builder.group({
      port: [25, [Validators.min(1), Validators.max(65535)]],
      helo: ['localhost', Validators.required],
      from: [''],
      perServerPerSecond: [2, Validators.min(0.01)],
      timeoutMs: [20_000, Validators.min(100)],
      retryAfterSeconds: [300, Validators.min(0)],
      simulated: [false],
    }),
  });

  /** Services of which there is one each. */
  protected readonly services = [
    {
      group: 'companyService',
      id: 'companies',
      title: 'Company service',
      about:
        'Finds the domain of a company by its name for nothing, and sells what it knows of one: sector, size, growth, place, technology, hiring. Each company is bought once for all jobs.',
      price: 'Price of a company',
    },
    {
      group: 'topicService',
      id: 'topics',
      title: 'Topics',
      about:
        'Says what the people of a company read about this week. That somebody reads is said for nothing, what they read is bought, a week at a time.',
      price: 'Price of a company and week',
    },
    {
      group: 'languageModel',
      id: 'reader',
      title: 'Language model',
      about:
        'Reads the websites of companies in place of the lists of words, where a job asks for it: a chat endpoint (POST …/chat/completions). What a site says is sent there.',
      price: 'Price of a question',
    },
  ] as const;

  /** Those whose name has the words typed; all at first. */
  protected readonly timeZones = toSignal(
    this.form.controls.timeZone.valueChanges.pipe(
      startWith(''),
      map((typed) =>
        TIME_ZONES.filter((zone) => zone.toLowerCase().includes(typed.toLowerCase().replaceAll(' ', '_'))),
      ),
    ),
    { requireSync: true },
  );
  protected readonly machineZone = new Intl.DateTimeFormat().resolvedOptions().timeZone;

  constructor() {
    // Ctrl Z takes back what was saved or suppressed last.
    const subject = { subject: 'settings', subjectId: 0 } as const;
    const again = () => {
      this.session.reload();
      this.suppressions.load();
    };
    inject(Shortcuts).use({
      'ctrl+z': () => this.decisions.undo(subject, again),
      'ctrl+shift+z': () => this.decisions.redo(subject, again),
    });
    effect(() => {
      const settings = this.session.settings();
      if (settings) this.fill(settings);
    });
    effect(() => {
      const part = this.part();
      if (part && this.session.settings())
        afterNextRender(() => document.getElementById(part)?.scrollIntoView(), { injector: this.injector });
    });
  }

  protected get finders(): FormArray<ReturnType<SettingsScreen['finderForm']>> {
    return this.form.controls.finders;
  }

  protected addFinder() {
    this.finders.push(
      this.finderForm({
        id: `finder-${this.finders.length + 1}`,
        name: '',
        url: 'https://',
        key: '',
        priceCents: 10,
        perSecond: 1,
        simulated: false,
      }),
    );
  }

  protected save() {
    if (this.form.invalid) {
      this.form.markAllAsTouched();
      return this.notices.say('Some fields cannot be used as they are; they are marked. Nothing was saved.');
    }
    const view = this.session.view();
    if (!view) return;
    const { finders, directory, companyService, topicService, languageModel, pace, lists, web, ...rest } =
      this.form.getRawValue();
    const settings: Settings = {
      ...rest,
      lists: {
        freeMail: wordsIn(lists.freeMail),
        disposableMail: wordsIn(lists.disposableMail),
        companyWords: wordsIn(lists.companyWords),
        titleWords: titleWordsIn(lists.titleWords).words,
        legalForms: linesIn(lists.legalForms),
        nameParts: namePartsIn(lists.nameParts).parts,
      },
      web: { ...web, simulatedHosts: wordsIn(web.simulatedHosts) },
      directory: directory.url ? { ...directory, name: directory.name || 'Directory' } : null,
      companyService: serviceIn(companyService, 'Companies'),
      topicService: serviceIn(topicService, 'Topics'),
      languageModel: serviceIn(languageModel, 'Reader'),
      pace: {
        rowsADay: pace.rowsADay,
        rowsARun: pace.rowsARun,
        fromMinute: minutesOf(pace.from),
        toMinute: minutesOf(pace.to) || 1440,
        workingDays: pace.workingDays,
      },
      finders: finders.map(withPrice),
    };
    this.doing.run(this.api.saveSettings({ version: view.version, settings }), (saved) => {
      this.session.view.set(saved);
      this.notices.say('Settings saved. Runs that start from now on use them.');
    });
  }

  private fill({
    finders,
    directory,
    companyService,
    topicService,
    languageModel,
    pace,
    lists,
    web,
    ...rest
  }: Settings) {
    this.finders.clear();
    finders.forEach((finder) => this.finders.push(this.finderForm(finder)));
    this.form.patchValue({
      ...rest,
      ...(directory && { directory }),
      ...(companyService && { companyService: shown(companyService) }),
      ...(topicService && { topicService: shown(topicService) }),
      ...(languageModel && { languageModel: shown(languageModel) }),
      lists: {
        freeMail: lists.freeMail.join('\n'),
        disposableMail: lists.disposableMail.join('\n'),
        companyWords: lists.companyWords.join('\n'),
        titleWords: titleWordsText(lists.titleWords),
        legalForms: lists.legalForms.join('\n'),
        nameParts: namePartsText(lists.nameParts),
      },
      web: { ...web, simulatedHosts: web.simulatedHosts.join(' ') },
      pace: { ...pace, from: timeOf(pace.fromMinute), to: timeOf(pace.toMinute % 1440) },
    });
  }

  /** A service of which there is one, or none while it has no address. */
  private serviceForm(id: string) {
    return this.builder.group({
      id: [id],
      name: [''],
      url: ['', Validators.pattern(/^https?:\/\/\S+$/)],
      key: [''],
      price: [0, [Validators.required, Validators.min(0)]],
      perSecond: [1, [Validators.required, Validators.min(0.01)]],
      simulated: [false],
    });
  }

  private finderForm(finder: FinderSetting) {
    return this.builder.group({
      id: [finder.id],
      name: [finder.name, Validators.required],
      url: [finder.url, [Validators.required, Validators.pattern(/^https?:\/\/\S+$/)]],
      key: [finder.key],
      price: [finder.priceCents / 100, [Validators.required, Validators.min(0)]],
      perSecond: [finder.perSecond, [Validators.required, Validators.min(0.01)]],
      simulated: [finder.simulated],
    });
  }
}

/** A service as it is saved; null for one without an address. */
const serviceIn = <T extends { name: string; url: string; price: number }>(service: T, name: string) =>
  service.url ? withPrice({ ...service, name: service.name || name }) : null;
const shown = <T extends { priceCents: number }>(service: T) => ({ ...service, price: service.priceCents / 100 });

/** With its price in cents. */
const withPrice = <T extends { price: number }>({ price, ...service }: T) => ({
  ...service,
  priceCents: Math.round(price * 100),
});

/** From 00:00 to 00:00 is all day; other hours end later than they begin, or on the next day. */
const hasHours = ({ value }: AbstractControl): ValidationErrors | null => {
  const { from, to } = value as { from: string; to: string };
  return from === to && from !== '00:00' ? { noHours: true } : null;
};
const timeZoneOrNone = ({ value }: AbstractControl): ValidationErrors | null =>
  value === '' || isTimeZone(value as string) ? null : { unknown: true };

const minutesOf = (time: string): number => {
  const [hours, minutes] = time.split(':').map(Number);
  return hours! * 60 + minutes!;
};
const timeOf = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
const wordsIn = (text: string): string[] => [
  ...new Set(
    text
      .toLowerCase()
      .split(/[\s,;]+/)
      .filter(Boolean),
  ),
];
