import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { bareUnit, DIMENSIONS, parseQuantity, readTyped } from '@isometra/core';
import type { Casting } from '@isometra/contract';
import { Settings } from '../data/settings';
import { MachineStore } from '../machine/machine-store';
import { bothUnits, isZero } from '../ui/say';
import { TextBox } from '../ui/text-box';
import { Notice } from '../ui/notice';
import { type Choice } from '../ui/choices';
import { Pick } from '../ui/pick';
import { Grid } from '../ui/grid';

type Face = Casting['supports'][number];

/** The faces in figures: place, what may be done, how deep at most; and what the plan asks of each. */
@Component({
  selector: 'iso-face-table',
  imports: [RouterLink, TextBox, Notice, Pick, Grid],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-grid [rows]="casting().supports" label="Faces">
      <ng-template #head>
        <tr>
          <th>Face</th>
          @for (axis of axes(); track axis) {
            <th>{{ axis }}, {{ placeUnit() }}</th>
          }
          <th>Area, {{ areaUnit().name }}</th>
          <th>May be</th>
          <th>At most</th>
          <th>Plan</th>
        </tr>
      </ng-template>
      <ng-template #row let-face>
        <tr [class.on]="face.id === selected()" (focusin)="picked.emit(face.id)">
          <th scope="row">{{ face.id }}</th>
          @for (axis of axes(); track axis; let i = $index) {
            <td>
              <iso-text-box [label]="axis + ' of ' + face.id" [value]="placeShown(face.at[i])" (entered)="place(face, i, $event)" />
            </td>
          }
          <td>
            <iso-text-box
              placeholder="alike"
              [label]="'Area of ' + face.id"
              [value]="face.area === undefined ? '' : areaShown(face.area)"
              (entered)="spread(face, $event)"
            />
          </td>
          <td>
            <iso-pick
              [label]="'What may be done to ' + face.id"
              [options]="allowed"
              [value]="face.allow"
              (chosen)="set(face, { allow: $event })"
            />
          </td>
          <td>
            <iso-text-box
              class="most"
              placeholder="no limit"
              [label]="'Most for ' + face.id"
              [value]="face.max === undefined ? '' : most(face.max)"
              (entered)="limit(face, $event)"
            />
          </td>
          <td class="figures">
            @if (depth(face.id); as deep) {
              <a
                [routerLink]="deskOf(face.id) ?? ['/machines', store.machine()?.id, 'scraping', 'new']"
                [queryParams]="
                  deskOf(face.id) ? {} : { name: nameOf(face.id), part: casting().id, depth: deep, aim: aim(), lever: leverOf(deep) }
                "
                >{{ planned(face.id) }}</a
              >
            } @else {
              {{ planned(face.id) }}
            }
          </td>
        </tr>
      </ng-template>
    </iso-grid>
    <iso-notice [text]="fault()" />
  `,
  styles: `
    iso-grid {
      font-size: 0.9375rem;
    }
    th,
    td {
      padding: 3px 6px 3px 0;
      text-align: left;
      font-weight: 400;
    }
    tr.on th {
      font-weight: 600;
    }
    td iso-text-box {
      width: 50px;
    }
    td .most {
      width: 80px;
    }
    th[scope='row'] {
      min-width: 84px;
      line-height: 1.25;
    }
    td.figures {
      min-width: 84px;
      font-size: 0.875rem;
    }
  `,
})
export class FaceTable {
  readonly casting = input.required<Casting>();
  readonly amounts = input<Readonly<Record<string, number>>>({});
  /** What the casting is scraped true by: check/quantity. */
  readonly aim = input<string>();
  /** How far what it is scraped true by goes with this plan, in its unit. */
  readonly aimGoes = input<number>();
  readonly selected = input<string | null>(null);
  readonly picked = output<string>();
  readonly changed = output<{ readonly id: string; readonly part: Partial<Face> }>();
  private readonly settings = inject(Settings);
  protected readonly fault = signal('');
  protected readonly allowed: readonly Choice<Face['allow']>[] = [
    { value: 'scrape', label: 'scraped' },
    { value: 'shim', label: 'shimmed' },
    { value: 'either', label: 'either' },
  ];

  protected axes(): readonly string[] {
    return this.casting().frame === 'lathe' ? ['along', 'up', 'toward you'] : ['right', 'to the column', 'up'];
  }

  /** Areas are typed in the unit of the shop; a face keeps mm². */
  protected readonly areaUnit = computed(() =>
    this.settings.system() === 'inch' ? { name: 'in²', mm2: 645.16 } : { name: 'cm²', mm2: 100 },
  );

  /** Places are shown and typed in the unit of the screen; a face keeps mm. */
  protected readonly placeUnit = computed(() => bareUnit({ dimension: 'length' }, this.settings.system()));

  protected placeShown(mm: number): string {
    return String(Number((mm / DIMENSIONS.length.factors[this.placeUnit()]).toFixed(this.settings.system() === 'mm' ? 3 : 4)));
  }

  protected areaShown(mm2: number): string {
    return String(Number((mm2 / this.areaUnit().mm2).toFixed(2)));
  }

  protected spread(face: Face, typed: string): void {
    const text = typed.trim().replace(',', '.');
    const size = Number(text);
    if (text && !(size > 0 && Number.isFinite(size))) {
      this.fault.set(`Area of ${face.id} must be a number of ${this.areaUnit().name} more than 0, or left empty. Example: 42`);
      return;
    }
    this.fault.set('');
    this.set(face, { area: text ? size * this.areaUnit().mm2 : undefined });
  }

  private size(um: number): string {
    return bothUnits(um, 'deviation', this.settings.shown(), 1).large;
  }

  protected most(um: number): string {
    return this.size(um);
  }

  /** What is to be scraped off a face, µm: it is worked off at the scraping desk. */
  protected depth(id: string): number | null {
    const amount = this.amounts()[id];
    return amount !== undefined && amount < 0 && !isZero(this.size(amount)) ? Number((-amount).toFixed(1)) : null;
  }

  protected readonly store = inject(MachineStore);
  /** What the face of a casting is called at the scraping desk. */
  protected nameOf(id: string): string {
    return `${this.casting().name}, ${id}`;
  }
  /** The way to its desk, where the face is described already. */
  protected deskOf(id: string): readonly unknown[] | undefined {
    const known = this.store.surfaces().find(({ name, putAway }) => name === this.nameOf(id) && !putAway);
    return known && ['/machines', known.machineId, 'scraping', known.id];
  }

  /** What the aim goes by for 1 µm off a face, with everything else of the plan; not told where nothing is asked of it. */
  protected leverOf(deep: number): number | undefined {
    const goes = Math.abs(this.aimGoes() ?? 0);
    return this.aim() && goes > 0 ? Number((goes / deep).toPrecision(3)) : undefined;
  }

  protected planned(id: string): string {
    const amount = this.amounts()[id];
    if (amount === undefined) return '';
    const size = this.size(amount);
    return isZero(size) ? 'leave' : `${amount < 0 ? 'scrape' : 'shim'} ${size}`;
  }

  protected set(face: Face, part: Partial<Face>): void {
    this.changed.emit({ id: face.id, part });
  }

  protected place(face: Face, axis: number, typed: string): void {
    if (typed.trim() === this.placeShown(face.at[axis])) return;
    const parsed = readTyped(typed, { dimension: 'length' }, this.settings.system());
    if (!parsed.ok) {
      this.fault.set(
        `${this.axes()[axis]} of ${face.id} ${parsed.message}. Example: ${this.settings.system() === 'mm' ? '120.5' : '4.75'}`,
      );
      return;
    }
    this.fault.set('');
    const at: [number, number, number] = [...face.at];
    at[axis] = parsed.value;
    this.set(face, { at });
  }

  protected limit(face: Face, typed: string): void {
    const text = typed.trim();
    const parsed = text ? parseQuantity(text, 'deviation', this.settings.system() === 'mm' ? 'mm' : 'thou') : undefined;
    if (parsed && (!parsed.ok || parsed.value < 0)) {
      this.fault.set(
        `Most for ${face.id} ${parsed.ok ? 'must not be below 0' : parsed.message}. Example: ${this.settings.system() === 'mm' ? '0.05 mm' : '2 thou'}`,
      );
      return;
    }
    this.fault.set('');
    this.set(face, { max: parsed?.ok ? parsed.value : undefined });
  }
}
