import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { from, of, switchMap } from 'rxjs';
import type { Dates } from '@isometra/contract';
import { curedByMetal, jobOf, outByLook, roughExample, threeAnswers, toLookAt, type Answer, type AnswerCode } from '@isometra/work';
import type { CheckDefinition, QuantityInfo } from '@isometra/core';
import { Settings } from '../data/settings';
import { ShopStore } from '../data/shop';
import { dayWords } from '../data/when';
import { MachineStore } from '../machine/machine-store';
import { AtHand } from '../shell/at-hand';
import { Button } from '../ui/controls';
import { Glyph } from '../ui/glyph';
import { Notice } from '../ui/notice';
import { resultTold } from '../ui/result-told';
import { counted } from '../ui/say';
import { FirstLook, type LookRow } from './first-look';
import { PlanDraws } from './plan-draws';
import { PlanState } from './plan-state';

const FEW_DRAWS = 300;

const TITLES: Readonly<Record<AnswerCode, string>> = {
  leave: 'Leave it, and use it so',
  adjust: 'Adjust only',
  rebuild: 'Rebuild',
};
const ABOUT: Readonly<Record<AnswerCode, string>> = {
  leave: 'Nothing is moved. The work has to live with what is out.',
  adjust: 'Screws and shims, and what has to be read for them. No metal comes off.',
  rebuild: 'Everything that is left to do, metal and all.',
};

/** Something that stays out of its limits. */
interface Stays {
  readonly key: string;
  readonly title: string;
  readonly told: ReturnType<typeof resultTold>;
}

/** Before a job is begun: leave it, adjust it, or rebuild it; what each takes, and what the work would suffer. Made to be printed. */
@Component({
  selector: 'iso-worth-it-page',
  imports: [RouterLink, Button, FirstLook, Glyph, Notice],
  providers: [PlanState, PlanDraws],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './worth-it-page.html',
  styleUrl: './worth-it-page.css',
})
export class WorthItPage {
  protected readonly machineStore = inject(MachineStore);
  protected readonly machineId = computed(() => this.machineStore.machine()?.id ?? '');
  protected readonly state = inject(PlanState);
  private readonly draws = inject(PlanDraws);
  private readonly settings = inject(Settings);
  private readonly shopStore = inject(ShopStore);

  private readonly answers = computed(() => threeAnswers(this.state.items()));
  private readonly dates = toSignal(
    toObservable(computed(() => ({ shop: this.state.shop(), answers: this.answers() }))).pipe(
      switchMap(({ shop, answers }) => (shop ? from(this.drawn(answers)) : of(undefined))),
    ),
  );
  /** What is out now, each by its check and quantity. */
  private readonly out = computed((): readonly Stays[] =>
    this.machineStore.rungs().flatMap(({ check, found, state }) =>
      state === 'left'
        ? []
        : Object.entries(found).flatMap(([name, quantity]) => {
            const info = check.quantities[name];
            if (!info || quantity.verdict !== 'out') return [];
            return [{ key: `${check.id} ${name}`, title: titleOf(check, info), told: resultTold(quantity, info, this.settings.shown()) }];
          }),
    ),
  );
  /** What is out by a rough look. */
  private readonly outByLooks = computed((): readonly Stays[] =>
    this.machineStore.rungs().flatMap((rung) =>
      outByLook(rung, this.state.looks(), this.machineStore.kind()).map(({ quantity, look }) => ({
        key: `${rung.check.id} ${quantity}`,
        title: titleOf(rung.check, rung.check.quantities[quantity]),
        told: { state: 'none' as const, way: null, text: `about ${look.out} out`, more: `a rough look, ${look.by}` },
      })),
    ),
  );
  /** What nobody has measured yet, with what a rough look said of it. */
  protected readonly lookRows = computed((): readonly LookRow[] =>
    this.machineStore
      .rungs()
      .filter(({ state }) => state === 'none')
      .flatMap(({ check }) =>
        toLookAt(check, this.machineStore.kind()).map(({ quantity, info }) => {
          const look = this.state.looks().find((one) => one.check === check.id && one.quantity === quantity);
          const key = `${check.id} ${quantity}`;
          return {
            ...{ key, check: check.id, quantity, info, title: titleOf(check, info), example: roughExample(info, this.settings.system()) },
            ...{ out: look?.out ?? '', right: look?.out === null },
          };
        }),
      ),
  );
  protected readonly unread = computed(() => this.machineStore.rungs().filter(({ state }) => state === 'none').length);
  protected readonly unreadWords = computed(() => {
    const many = this.unread();
    if (many === 0) return '';
    return `${counted(many, 'check')} ${many === 1 ? 'is' : 'are'} not measured yet. In the hours they count with what a rough look said of them, else with the share that is out at first.`;
  });

  private readonly card = computed((): Readonly<Record<string, unknown>> => this.shopStore.told()?.card ?? {});
  private readonly currency = computed(() => {
    const currency = this.card()['currency'];
    return typeof currency === 'string' ? currency : '';
  });
  /** What an hour costs; null where the shop has not told it. */
  private readonly rate = computed(() => {
    const rate = Number(this.card()['rate']);
    return rate > 0 ? rate : null;
  });
  protected readonly noRate = computed(() => this.rate() === null);

  protected readonly columns = computed(() => {
    const metal = new Set(curedByMetal(this.state.items()));
    return this.answers().map(({ code, items, hours, bought }, i) => ({
      ...{ code, title: TITLES[code], about: ABOUT[code] },
      hours: items.length ? rangeWords(hours, 'h') : '0 h',
      money: items.length ? this.moneyOf(hours) : '',
      bought: this.boughtWords(bought),
      open: bought.open.length
        ? `${counted(bought.open.length, 'thing')} to buy ${bought.open.length === 1 ? 'has' : 'have'} no price yet: ${bought.open.join('; ')}.`
        : '',
      date: this.dateWords(this.dates()?.[i]),
      stays: code === 'rebuild' ? [] : [...this.out(), ...this.outByLooks()].filter(({ key }) => code === 'leave' || metal.has(key)),
    }));
  });

  constructor() {
    effect(() => {
      const id = this.machineId();
      if (id) untracked(() => this.state.load(id));
    });
    inject(AtHand).doing.set('Worth it?');
  }

  private boughtWords({ price, priced }: Answer['bought']): string {
    return priced > 0 ? `parts and certificates: ${price.toLocaleString('en')} ${this.currency()}`.trim() : '';
  }

  private moneyOf(hours: Answer['hours']): string {
    const rate = this.rate();
    if (rate === null) return '';
    const by = (each: number): number => each * rate;
    return rangeWords({ p10: by(hours.p10), p50: by(hours.p50), p90: by(hours.p90) }, this.currency());
  }

  private dateWords(dates: Dates | null | undefined): string {
    return dates ? `done about ${dayWords(dates.p50)}, by ${dayWords(dates.p90)} nine times in ten` : '';
  }

  /** When each would be done; the first is nothing to do. */
  private async drawn(answers: readonly Answer[]): Promise<readonly (Dates | null)[]> {
    const shop = this.state.shop();
    const machine = shop?.machines[0];
    if (!shop || !machine) return [];
    const circumstances = { start: shop.today, timeZone: shop.timeZone, people: shop.people, widen: shop.widen, draws: FEW_DRAWS };
    const jobs = answers.map(({ items }) => jobOf([{ machineId: machine.machineId, number: machine.number, items }], circumstances)?.job);
    const made = jobs.flatMap((job) => (job ? [job] : []));
    const told = [...(await this.draws.finishes(made.map((job) => ({ job }))))];
    return jobs.map((job) => (job ? (told.shift() ?? null) : null));
  }

  protected print(): void {
    window.print();
  }
}

const titleOf = ({ title }: CheckDefinition, { label }: QuantityInfo): string => (label === title ? title : `${title}: ${label}`);

/** Two figures that a shop can stand by: no more digits than they earn. */
function rounded(value: number): string {
  const step = value >= 1000 ? 100 : value >= 100 ? 10 : 1;
  return (Math.round(value / step) * step).toLocaleString('en');
}

const rangeWords = ({ p10, p50, p90 }: Answer['hours'], unit: string): string =>
  `about ${rounded(p50)} ${unit} (${rounded(p10)} to ${rounded(p90)})`.replace(/\s+/g, ' ');
