import { dequal } from 'dequal';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { SHOP_ID, shopCardSchema, storedShopCardSchema, type StateThen, type StoredShopCard } from '@isometra/contract';
import type { ApiFailure } from '../data/api';
import { Drafts } from '../data/drafts';
import { Pictures } from '../data/pictures';
import { Settings } from '../data/settings';
import { ShopStore } from '../data/shop';
import { AsItStood } from '../notebook/as-it-stood';
import { Earlier } from '../notebook/earlier';
import { Button } from '../ui/controls';
import { File as FileButton } from '../ui/file';
import { formFaults, formSchema, settled, type FormValue } from '../ui/form-model';
import { Notice } from '../ui/notice';
import { SchemaForm } from '../ui/schema-form';
import { smallPhoto } from '../ui/small-photo';
import { PeopleList } from './people-list';
import { ShopTime } from './shop-time';

const DRAFT = 'shop';

/** What belongs to the whole shop on one page: its name and mark, people, time zone, units, paper, hours, starting durations. */
@Component({
  selector: 'iso-shop-page',
  imports: [RouterLink, AsItStood, Button, Earlier, FileButton, Notice, PeopleList, SchemaForm, ShopTime],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './shop-page.html',
  styleUrl: './shop-page.css',
})
export class ShopPage {
  private readonly store = inject(ShopStore);
  private readonly settings = inject(Settings);
  private readonly drafts = inject(Drafts);
  private readonly pictures = inject(Pictures);
  protected readonly id = SHOP_ID;
  protected readonly schema = shopCardSchema;
  protected readonly told = this.store.told;
  protected readonly problem = signal('');
  protected readonly tried = signal(false);
  protected readonly saved = signal('');
  protected readonly then = signal<StateThen | null>(null);
  /** The version that stands where somebody else changed it meanwhile. */
  private readonly newer = signal<number | null>(null);

  protected readonly card = linkedSignal<FormValue>(() => this.drafts.read(DRAFT, formSchema) ?? this.told()?.card ?? {});
  protected readonly mark = linkedSignal<string | null>(() => this.told()?.mark ?? null);
  private readonly full = computed(() => settled(this.schema, this.card(), this.settings.system()));
  protected readonly faults = computed(() => formFaults(this.schema, this.full(), this.settings.system()));
  protected readonly changed = computed(() => !dequal([this.card(), this.mark()], [this.told()?.card ?? {}, this.told()?.mark ?? null]));
  protected readonly markAddress = computed(() => {
    const mark = this.mark();
    return mark === null ? '' : this.pictures.address(mark);
  });

  constructor() {
    this.load();
  }

  protected load(): void {
    this.store.loadCard().subscribe({
      next: () => this.problem.set(''),
      error: (failure: ApiFailure) => this.problem.set(failure.message),
    });
  }

  protected type(card: FormValue): void {
    this.card.set(card);
    this.saved.set('');
    this.drafts.keep(DRAFT, card);
  }

  protected async chooseMark(file: Blob): Promise<void> {
    try {
      this.mark.set(await this.pictures.keep(await smallPhoto(file)));
      this.problem.set('');
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected lookAt(then: StateThen): void {
    const { mark, ...card } = then.state;
    this.then.set(then);
    this.card.set(card);
    this.mark.set(typeof mark === 'string' ? mark : null);
  }

  protected discard(): void {
    this.drafts.drop(DRAFT);
    this.then.set(null);
    this.tried.set(false);
    this.problem.set('');
    this.newer.set(null);
    this.card.set(this.told()?.card ?? {});
    this.mark.set(this.told()?.mark ?? null);
  }

  protected save(event: Event): void {
    event.preventDefault();
    this.tried.set(true);
    const told = this.told();
    if (!told) return this.problem.set('The shop cannot be reached. What you typed stays here: save it later.');
    if (this.faults().length) return;
    this.store.tell({ card: this.full(), mark: this.mark(), version: this.newer() ?? told.version }).subscribe({
      next: () => {
        this.discard();
        this.saved.set('Saved.');
      },
      error: (failure: ApiFailure) => this.refused(failure),
    });
  }

  private refused(failure: ApiFailure): void {
    const newer: StoredShopCard | undefined = storedShopCardSchema.safeParse(failure.current).data;
    this.newer.set(newer?.version ?? null);
    this.problem.set(
      newer
        ? 'Somebody else has changed it meanwhile. What you typed is still here. Save again to overwrite their version.'
        : failure.message,
    );
  }
}
