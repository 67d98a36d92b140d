import { ChangeDetectionStrategy, Component, computed, inject, output, signal } from '@angular/core';
import { parseQuantity, prettyUnit } from '@isometra/core';
import { Settings } from '../data/settings';
import { Button } from '../ui/controls';
import { Field } from '../ui/field';

const STEPS = [
  'Clamp a stiff, true bar in vees or between centres: thick enough not to droop itself.',
  'Put the holder and its indicator on the bar as they will be used, stylus at the top. Zero the dial there.',
  'Carry the holder round to the bottom without touching the dial, and read it.',
  'Carry it back to the top. If the needle does not come back to zero, something slipped: begin again.',
] as const;

const SLIPPED = 2;

/** The short guided check of how far a holder droops: top to bottom on a stiff true bar. */
@Component({
  selector: 'iso-holder-check',
  imports: [Button, Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>
      @for (step of steps; track $index) {
        <li>{{ step }}</li>
      }
    </ol>
    <div class="fields">
      <iso-field above label="Reads at the bottom" [example]="example()" [value]="bottom()" (typed)="bottom.set($event)" />
      <iso-field above label="Back at the top" example="0" [value]="top()" (typed)="top.set($event)" />
    </div>
    @if (found(); as result) {
      <p [class.fault]="!result.sag" role="status">{{ result.text }}</p>
      @if (result.sag; as sag) {
        <button pButton type="button" (click)="measured.emit(sag)">Keep {{ sag }} for this holder</button>
      }
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 12px;
      justify-items: start;
      padding: 12px 16px;
      border-left: 4px solid var(--blue);
    }
    ol {
      margin: 0;
      padding-left: 20px;
    }
    .fields {
      display: flex;
      gap: 16px;
    }
    label {
      display: grid;
      gap: 4px;
    }
    .fault {
      color: var(--red);
      font-weight: 600;
    }
  `,
})
export class HolderCheck {
  readonly measured = output<string>();
  private readonly settings = inject(Settings);
  protected readonly steps = STEPS;
  protected readonly bottom = signal('');
  protected readonly top = signal('');
  protected readonly unit = computed(() => (this.settings.system() === 'mm' ? 'mm' : 'thou'));
  protected readonly example = computed(() => (this.settings.system() === 'mm' ? '-0.012 mm' : '-0.5 thou'));

  /** The droop with the dial's wandering shared between top and bottom, or why there is none yet. */
  protected readonly found = computed((): { readonly text: string; readonly sag?: string } | null => {
    if (!this.bottom().trim()) return null;
    const bottom = parseQuantity(this.bottom(), 'deviation', this.unit());
    const top = parseQuantity(this.top().trim() || '0', 'deviation', this.unit());
    if (!bottom.ok) return { text: `Reads at the bottom ${bottom.message}. Example: ${this.example()}` };
    if (!top.ok) return { text: `Back at the top ${top.message}. Example: 0` };
    if (Math.abs(top.value) > Math.max(SLIPPED, Math.abs(bottom.value) / 4))
      return { text: 'The needle did not come back at the top: something slipped or was touched. Tighten the holder and begin again.' };
    const sag = bottom.value - top.value / 2;
    if (sag > 0)
      return {
        text: 'It reads more at the bottom than at the top: a droop reads less. Is the dial counting backwards, or is the bar bent? Turn the bar half round and try again.',
      };
    return {
      text: 'The holder droops: every sweep that is read with it is corrected by this much.',
      sag: `${Number(sag.toFixed(2))} ${prettyUnit('um')}`,
    };
  });
}
