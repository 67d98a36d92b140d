import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationStart, Router, RouterLink, RouterLinkActive } from '@angular/router';
import { Keys, type KeyHint } from '../data/keys';
import { NewInitials } from '../data/new-initials';
import { Outbox } from '../data/outbox';
import { Recent } from '../data/recent';
import { Settings } from '../data/settings';
import { GoTo, type Action } from '../finder/go-to';
import { AllKeys } from './all-keys';
import { NoteDialog, type Where } from '../notes/note-dialog';
import { AtHand } from './at-hand';
import { Button, TextField } from '../ui/controls';

/** Screens that no machine is open on. */
const TITLES: Readonly<Record<string, string>> = {
  machines: 'Machines',
  kit: 'Kit',
  limits: 'Limits',
  logbook: 'Logbook',
  parts: 'Parts needed',
  planner: 'Planner',
  due: 'What is due',
  files: 'Files',
  shop: 'The shop',
};

/** The check, the face or the strip-down that the address of a screen names. */
function partOf(path: string): string | null {
  const [, machines, , screen, part] = path.split('/');
  return machines === 'machines' && part && ['bench', 'rounds', 'scraping', 'parts'].includes(screen) && part !== 'new' ? part : null;
}

/** The name plate across the top. */
@Component({
  selector: 'iso-plate',
  imports: [RouterLink, RouterLinkActive, AllKeys, GoTo, NoteDialog, Button, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './plate.html',
  styleUrl: './plate.css',
})
export class Plate {
  protected readonly settings = inject(Settings);
  protected readonly outbox = inject(Outbox);
  protected readonly hand = inject(AtHand);
  protected readonly showKeys = signal(false);
  protected readonly keys = inject(Keys);
  protected readonly whoAsked = inject(NewInitials);
  /** What holds up the writes that wait. */
  protected readonly held = computed(() => {
    if (this.outbox.shutOut()) return 'saved in this browser: this device is not let in any more';
    return this.outbox.away() ? 'saved in this browser: the server cannot be reached' : 'being saved';
  });

  constructor() {
    const hints: readonly KeyHint[] = [
      { shown: 'U', does: 'mm or inch', keys: ['u'], run: () => this.settings.switchSystem() },
      { shown: '/', does: 'go to anything', keys: ['/'], run: () => this.goTo() },
      { shown: 'J', does: 'write a note', keys: ['j'], run: () => this.writeNote() },
      { shown: 'O', does: 'take a photograph', keys: ['o'], run: () => this.note.set(this.whereNow(true)) },
      { shown: '?', does: 'all keys', keys: ['?'], run: () => this.toggleKeys() },
      {
        shown: 'Esc',
        does: 'close',
        keys: ['Escape'],
        inFields: true,
        quiet: true,
        run: () => this.close(),
      },
    ];
    this.keys.use(hints);
    // A screen that is left is remembered by the name that it had.
    inject(Router).events.subscribe((event) => {
      if (!(event instanceof NavigationStart)) return;
      const elsewhere = event.url.split(/[?#]/)[0] !== this.router.url.split(/[?#]/)[0];
      // What was typed in a note stays as a draft of its screen.
      if (elsewhere && (this.note() || this.goingTo())) this.closeAll();
      const { path, words } = this.whereNow(false).where.place;
      if (path !== '/' && words && path !== event.url.split(/[?#]/)[0]) this.recent.note({ path, words });
    });
  }

  /** What is written just now, and where. */
  protected readonly note = signal<{ readonly where: Where; readonly photograph: boolean } | null>(null);
  private readonly router = inject(Router);

  private readonly refused = toSignal(inject(Outbox).refused$, { requireSync: true });
  /** Notes that the server did not take: they wait in the note dialog. */
  protected readonly notesRefused = computed(() => this.refused().filter(({ what }) => what === 'remark').length);
  protected readonly goingTo = signal(false);
  private readonly recent = inject(Recent);
  /** What is done from wherever one is, by its name. */
  protected readonly actions: readonly Action[] = [
    { label: 'Write a note', run: () => this.writeNote() },
    { label: 'Take a photograph', run: () => this.note.set(this.whereNow(true)) },
    { label: 'mm or inch', run: () => this.settings.switchSystem() },
    { label: 'Finer or coarser figures', run: () => this.settings.switchFineness() },
    { label: 'All keys', run: () => this.showKeys.set(true) },
  ];

  /** The screen as a note remembers it. */
  protected whereNow(photograph: boolean) {
    const { machine, doing, spot } = this.hand;
    const path = this.router.url.split(/[?#]/)[0];
    const words = [machine()?.number, doing() || TITLES[path.split('/')[1]], spot()].filter(Boolean).join(', ');
    return { photograph, where: { machineId: machine()?.id ?? null, part: partOf(path), place: { path, words: words.slice(0, 200) } } };
  }

  protected goTo(): void {
    this.keys.awaitField();
    this.goingTo.set(true);
  }

  protected writeNote(): void {
    this.keys.awaitField();
    this.note.set(this.whereNow(false));
  }

  private closeAll(): void {
    this.note.set(null);
    this.goingTo.set(false);
  }

  private close(): boolean | void {
    this.keys.fieldIsHere();
    if (this.goingTo()) return this.goingTo.set(false);
    if (this.note()) return this.note.set(null);
    return this.showKeys() ? this.toggleKeys() : false;
  }

  protected toggleKeys(): void {
    this.showKeys.update((shown) => !shown);
  }
}
