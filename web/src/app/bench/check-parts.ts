import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { CheckDefinition, Fault, UnitSystem } from '@isometra/core';
import * as z from 'zod';
import { FormPart } from '../ui/form-part';
import { formFaults, formSchema, settled, type FormValue } from '../ui/form-model';

/** What a round is set up with, as typed: the part a check asks for. */
export const partsSchema = z.object({ setup: formSchema, conditions: formSchema, plan: formSchema });
export type PartsDraft = z.infer<typeof partsSchema>;

type Part = keyof PartsDraft;
export type PartFaults = Readonly<Record<Part, readonly Fault[]>>;

/** The parts with their units written out. */
export const settledParts = (check: CheckDefinition, { setup, conditions, plan }: PartsDraft, system: UnitSystem): PartsDraft => ({
  setup: settled(check.setup, setup, system),
  conditions: settled(check.conditions, conditions, system),
  plan: settled(check.plan, plan, system),
});

/** What is wrong with each part. */
export const partFaults = (check: CheckDefinition, { setup, conditions, plan }: PartsDraft, system: UnitSystem): PartFaults => ({
  setup: formFaults(check.setup, setup, system),
  conditions: formFaults(check.conditions, conditions, system),
  plan: formFaults(check.plan, plan, system),
});

/** How many fields need another look, in a sentence; empty when none does. */
export function anotherLook(faults: Readonly<Record<string, readonly Fault[]>>): string {
  const count = Object.values(faults).reduce((sum, part) => sum + part.length, 0);
  if (count === 0) return '';
  return count === 1 ? 'One field needs another look.' : `${count} fields need another look.`;
}

/** The fields a check asks for before it is read: its set-up, what it is used under, where to read. */
@Component({
  selector: 'iso-check-parts',
  imports: [FormPart],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-form-part
      heading="Set up"
      [schema]="check().setup"
      [value]="draft().setup"
      [faults]="faults().setup"
      [showAll]="tried()"
      (changed)="change('setup', $event)"
    >
      <ng-content />
      <ng-content after select="[after]" />
    </iso-form-part>
    <iso-form-part
      heading="Conditions"
      hint="Clamps and locks move parts. Rounds are compared only when their conditions match."
      [schema]="check().conditions"
      [value]="draft().conditions"
      [faults]="faults().conditions"
      [showAll]="tried()"
      (changed)="change('conditions', $event)"
    />
    <iso-form-part
      heading="Where to read"
      [schema]="check().plan"
      [value]="draft().plan"
      [faults]="faults().plan"
      [showAll]="tried()"
      (changed)="change('plan', $event)"
    />
  `,
  styles: `
    :host {
      display: grid;
      gap: 22px;
    }
  `,
})
export class CheckParts {
  readonly check = input.required<CheckDefinition>();
  readonly draft = input.required<PartsDraft>();
  readonly faults = input.required<PartFaults>();
  /** Show faults of fields that have not been touched too. */
  readonly tried = input(false);
  readonly changed = output<Partial<PartsDraft>>();

  protected change(part: Part, value: FormValue): void {
    this.changed.emit({ [part]: value });
  }
}
