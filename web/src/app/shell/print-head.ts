import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { MachineCardText } from '@isometra/contract';
import { MACHINE_KINDS } from '@isometra/contract/machine-kinds';
import { nowText } from '../data/clock';
import { Settings } from '../data/settings';
import { ShopStore } from '../data/shop';
import { dateWords } from '../data/when';

/** What stands over every print and on no screen: which machine, which survey and limits, when it was printed and by whom. */
@Component({
  selector: 'iso-print-head',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (shop.told()?.mark; as mark) {
      <img [src]="'/api/pictures/' + mark" alt="" />
    }
    @if (shopName(); as name) {
      <p>{{ name }}</p>
    }
    @if (card(); as machine) {
      <p>
        <b>{{ machine.number }}</b> {{ machine.nickname }}
      </p>
    }
    <p>{{ line() }}</p>
  `,
  styles: `
    :host {
      display: none;
    }
    @media print {
      :host {
        display: flex;
        flex-wrap: wrap;
        justify-content: space-between;
        gap: 4px 24px;
        margin-bottom: 12px;
        padding-bottom: 6px;
        border-bottom: 1px solid #000;
      }
      img {
        max-height: 14mm;
        max-width: 50mm;
      }
    }
  `,
})
export class PrintHead {
  readonly card = input<MachineCardText>();
  readonly survey = input('');
  readonly limits = input('');
  private readonly settings = inject(Settings);
  protected readonly shop = inject(ShopStore);
  protected readonly shopName = computed(() => String(this.shop.told()?.card['name'] ?? ''));

  protected readonly line = computed(() => {
    const kind = MACHINE_KINDS.find(({ value }) => value === this.card()?.kind)?.label ?? '';
    const survey = this.survey() && `survey “${this.survey()}”`;
    const limits = this.limits() && `judged by ${this.limits()}`;
    return [kind, survey, limits, `printed ${dateWords(nowText())} by ${this.settings.by()}`].filter(Boolean).join(' · ');
  });
}
