import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal } from '@angular/core';
import { dequal } from 'dequal';
import { bearingShims, FaultError, planFor } from '@isometra/core';
import { Settings } from '../data/settings';
import { Figure } from '../ui/figure';
import { Notice } from '../ui/notice';
import { bothUnits } from '../ui/say';

type Name = 'lift' | 'clearance' | 'shim' | 'layer';
const FIELDS: readonly { readonly name: Name; readonly label: string; readonly of: 'length' | 'deviation'; readonly example: string }[] = [
  { name: 'lift', label: 'Lift measured', of: 'deviation', example: '64 um' },
  { name: 'clearance', label: 'wanted', of: 'deviation', example: '20 um' },
  { name: 'shim', label: 'shim under the cap now', of: 'length', example: '0.62 mm' },
  { name: 'layer', label: 'one layer of it', of: 'deviation', example: '20 um' },
];

/** What is asked, as far as it is known already. */
export type ShimTexts = Readonly<Partial<Record<Name, string>>>;

/** A split bearing: how many whole layers come out from under its cap, and what lift that leaves. */
@Component({
  selector: 'iso-shim-panel',
  imports: [Figure, Notice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">The same on both sides of the cap, in whole layers, never rounded up.</p>
    <p class="line">
      @for (field of fields; track field.name) {
        <iso-figure
          [label]="field.label"
          [name]="field.label"
          [of]="field.of"
          [example]="field.example"
          [value]="texts()[field.name] ?? ''"
          [size]="8"
          (typed)="write(field.name, $event)"
        />
      }
    </p>
    @for (line of told().lines; track $index) {
      <p class="found">{{ line }}</p>
    }
    <iso-notice kind="caution" [text]="told().caution" />
    <iso-notice [text]="told().problem" />
  `,
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    p {
      margin: 0;
    }
    .line {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 16px;
      align-items: baseline;
    }
    .found {
      font: 600 1.0625rem/1.3 var(--narrow);
    }
  `,
})
export class ShimPanel {
  readonly known = input<ShimTexts>({});
  private readonly settings = inject(Settings);
  protected readonly fields = FIELDS;
  /** The same as long as it says the same: what is being typed stays, whatever the desk hears meanwhile. */
  private readonly from = computed(() => this.known(), { equal: dequal });
  protected readonly texts = linkedSignal<ShimTexts>(() => this.from());

  protected write(name: Name, text: string): void {
    this.texts.update((texts) => ({ ...texts, [name]: text }));
  }

  private readonly size = (um: number): string =>
    bothUnits(um, 'deviation', { ...this.settings.shown(), fineness: um < 100 ? 'fine' : this.settings.shown().fineness }).large;

  protected readonly told = computed((): { readonly lines: readonly string[]; readonly caution: string; readonly problem: string } => {
    const nothing = { lines: [], caution: '', problem: '' };
    const texts = this.texts();
    if (FIELDS.some(({ name }) => !texts[name]?.trim())) return nothing;
    try {
      const { layers, shim, lift, liftOneMore, jointMustComeDown } = planFor(bearingShims, texts);
      const out = layers === 0 ? 'No whole layer comes out' : `${layers} ${layers === 1 ? 'layer comes' : 'layers come'} out`;
      return {
        lines: [
          `${out}: ${this.size(1000 * shim)} of shim is left, and ${this.size(lift)} of lift.`,
          `One layer more would leave ${this.size(liftOneMore)} of lift.`,
        ],
        caution: jointMustComeDown
          ? 'Less than one layer would be left, or there is less than must go: the joint faces come down first.'
          : '',
        problem: '',
      };
    } catch (error) {
      if (!(error instanceof FaultError)) throw error;
      const [{ path, message, example }] = error.faults;
      const label = FIELDS.find(({ name }) => name === path)?.label ?? path;
      return { ...nothing, problem: `${label}: ${message}. Example: ${example}` };
    }
  });
}
