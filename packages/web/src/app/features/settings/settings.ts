import { afterNextRender, ChangeDetectionStrategy, Component, effect, inject, Injector, input } from '@angular/core';
import {
  type AbstractControl,
  type FormControl,
  type FormGroup,
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
import { MatSelectModule } from '@angular/material/select';
import { PAYS, type Pays } from '@sieve/core/facts/pays';
import { PHONE_PAYS, type PhonePays } from '@sieve/core/facts/phones';
import {
  isTimeZone,
  type FinderSetting,
  type PhoneServiceSetting,
  type ServiceSetting,
  type Settings,
} from '@sieve/contract';
import { toSignal } from '@angular/core/rxjs-interop';
import { map, startWith } from 'rxjs';
import { Api } from '../../api/api';
import { Decisions } from '../../state/decisions';
import { Doing } from '../../state/doing';
import { Session } from '../../state/session';
import { ServiceFields } from './service-fields';
import {
  freeId,
  inCents,
  inMoney,
  isWebAddress,
  newService,
  planControls,
  type PlanControls,
  planIn,
  type ServiceControls,
  serviceControls,
  serviceIn,
} from './service-form';
import { TryServiceButton } from './try-service';
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
import { folderBudgetsIn, folderBudgetsOnly, folderBudgetsText } from './folder-budgets';
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
    ServiceFields,
    TryServiceButton,
    SuppressionList,
    ReactiveFormsModule,
    MatAutocompleteModule,
    MatButtonModule,
    MatCheckboxModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
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
    budgets: this.builder.group({ month: [0, Validators.min(0)], folders: ['', folderBudgetsOnly] }),
    finders: this.builder.array<FinderForm>([]),
    phoneServices: this.builder.array<PhoneForm>([]),
    verifiers: this.builder.array<FormGroup<ServiceControls>>([]),
    directory: this.builder.group({
      name: [''],
      url: ['', isWebAddress],
      key: [''],
      perSecond: [1, Validators.min(0.01)],
      simulated: [false],
    }),
    companyService: this.builder.group(this.onlyOne('companies')),
    topicService: this.builder.group(this.onlyOne('topics')),
    languageModel: this.builder.group({ ...this.onlyOne('reader'), model: this.builder.control('') }),
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
      through: [''],
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
      price: 'Price of a week',
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

  protected readonly PAYS = PAYS;
  protected readonly PHONE_PAYS = PHONE_PAYS;
  protected readonly finders = this.form.controls.finders;
  protected readonly phoneServices = this.form.controls.phoneServices;
  protected readonly verifiers = this.form.controls.verifiers;

  protected addFinder() {
    const id = freeId('finder', this.finders.getRawValue());
    const plan = { credits: 0, cents: 0 };
    this.finders.push(this.finderForm({ ...newService(id, AN_ADDRESS), pays: 'valid', plan }));
  }

  protected addPhoneService() {
    const id = freeId('phones', this.phoneServices.getRawValue());
    this.phoneServices.push(this.phoneForm({ ...newService(id, AN_ADDRESS), pays: 'answer' }));
  }

  protected addVerifier() {
    const id = freeId('verifier', this.verifiers.getRawValue());
    this.verifiers.push(this.serviceForm(newService(id, { ...AN_ADDRESS, priceCents: 1 })));
  }

  /** Mailboxes are asked of the mail servers again when the verifier goes that was asked in their place. */
  protected removeVerifier(index: number) {
    const { through } = this.form.controls.mail.controls;
    if (this.verifiers.at(index).value.id === through.value) through.setValue('');
    this.verifiers.removeAt(index);
  }

  protected save() {
    if (this.form.invalid) {
      this.form.markAllAsTouched();
      return this.notices.say('Some fields cannot be used as they are; they are marked. Nothing was saved.');
    }
    const view = this.session.view();
    if (!view) return;
    const form = this.form.getRawValue();
    const { lists, pace, budgets, directory } = form;
    const settings: Settings = {
      ...form,
      lists: {
        freeMail: wordsIn(lists.freeMail),
        disposableMail: wordsIn(lists.disposableMail),
        companyWords: wordsIn(lists.companyWords),
        titleWords: titleWordsIn(lists.titleWords).words,
        legalForms: linesIn(lists.legalForms),
        nameParts: namePartsIn(lists.nameParts).parts,
      },
      web: { ...form.web, simulatedHosts: wordsIn(form.web.simulatedHosts) },
      directory: directory.url ? { ...directory, name: directory.name || 'Directory' } : null,
      companyService: serviceIn(form.companyService, 'Companies'),
      topicService: serviceIn(form.topicService, 'Topics'),
      languageModel: serviceIn(form.languageModel, 'Reader'),
      pace: {
        rowsADay: pace.rowsADay,
        rowsARun: pace.rowsARun,
        fromMinute: minutesOf(pace.from),
        toMinute: minutesOf(pace.to) || 1440,
        workingDays: pace.workingDays,
      },
      budgets: { monthCents: Math.round(budgets.month * 100), folders: folderBudgetsIn(budgets.folders).folders },
      finders: form.finders.map(({ credits, planPrice, ...finder }) => ({
        ...inCents(finder),
        plan: planIn({ credits, planPrice }),
      })),
      phoneServices: form.phoneServices.map(inCents),
      verifiers: form.verifiers.map(inCents),
    };
    this.doing.run(this.api.saveSettings({ version: view.version, settings }), (saved) => {
      this.session.view.set(saved);
      this.notices.say('Settings saved. Runs that start from now on use them.');
    });
  }

  private fill({
    finders,
    phoneServices,
    verifiers,
    directory,
    companyService,
    topicService,
    languageModel,
    budgets,
    pace,
    lists,
    web,
    ...rest
  }: Settings) {
    this.finders.clear();
    finders.forEach((finder) => this.finders.push(this.finderForm(finder)));
    this.phoneServices.clear();
    phoneServices.forEach((service) => this.phoneServices.push(this.phoneForm(service)));
    this.verifiers.clear();
    verifiers.forEach((service) => this.verifiers.push(this.serviceForm(service)));
    this.form.patchValue({
      ...rest,
      budgets: { month: budgets.monthCents / 100, folders: folderBudgetsText(budgets.folders) },
      ...(directory && { directory }),
      ...(companyService && { companyService: inMoney(companyService) }),
      ...(topicService && { topicService: inMoney(topicService) }),
      ...(languageModel && { languageModel: inMoney(languageModel) }),
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
  private onlyOne(id: string): ServiceControls {
    return serviceControls(this.builder, newService(id, { priceCents: 0 }), { optional: true });
  }

  private serviceForm(service: ServiceSetting): FormGroup<ServiceControls> {
    return this.builder.group(serviceControls(this.builder, service));
  }

  private finderForm(finder: FinderSetting): FinderForm {
    const { builder } = this;
    const pays = builder.control(finder.pays);
    return builder.group({ ...serviceControls(builder, finder), pays, ...planControls(builder, finder.plan) });
  }

  private phoneForm(service: PhoneServiceSetting): PhoneForm {
    const { builder } = this;
    return builder.group({ ...serviceControls(builder, service), pays: builder.control(service.pays) });
  }
}

type FinderForm = FormGroup<ServiceControls & PlanControls & { pays: FormControl<Pays> }>;
type PhoneForm = FormGroup<ServiceControls & { pays: FormControl<PhonePays> }>;

const AN_ADDRESS = { url: 'https://' };

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
