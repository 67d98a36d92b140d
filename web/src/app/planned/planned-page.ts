import { ChangeDetectionStrategy, Component, computed, effect, inject } from '@angular/core';
import { machineFamily } from '@isometra/contract';
import { AtHand } from '../shell/at-hand';
import { SurveyChanges } from '../survey/survey-changes';
import { MachineStore } from '../machine/machine-store';
import { BearingCard } from './bearing-card';
import { PlannedChanges } from './planned-changes';
import { RegisterLog } from '../register/register-log';
import { StandIns } from './stand-ins';
import { Notice } from '../ui/notice';

/** Around the headstock: changes that are planned, how the bearings feel, and cheap readings between passes. */
@Component({
  selector: 'iso-to-come',
  imports: [PlannedChanges, BearingCard, RegisterLog, StandIns, Notice],
  providers: [SurveyChanges],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h1>{{ title() }}</h1>
      <iso-notice [text]="changes.problem()" />
      <iso-notice kind="told" [text]="changes.told()" />
    </header>
    @if (store.survey()) {
      @if (turning()) {
        <iso-register-log />
      }
      <iso-planned-changes />
      @if (lathe()) {
        <iso-bearing-card />
        <iso-stand-ins />
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 26px;
      max-width: 1020px;
      padding: 22px 28px 40px;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
    .told {
      min-height: 1.4em;
    }
  `,
})
export class PlannedPage {
  protected readonly store = inject(MachineStore);
  protected readonly changes = inject(SurveyChanges);

  protected readonly lathe = computed(() => machineFamily(this.store.kind()) !== 'mill');
  protected readonly turning = computed(() => machineFamily(this.store.kind()) === 'turning-centre');
  protected readonly title = computed(() => {
    if (this.turning()) return 'Registers, bearings and planned changes';
    return this.lathe() ? 'Bearings and planned changes' : 'Planned changes';
  });

  constructor() {
    const hand = inject(AtHand);
    effect(() => hand.doing.set(this.title()));
    this.store.refresh();
  }
}
