import {
  afterNextRender,
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  computed,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { findablesOf, folded, found, type Findable } from '@isometra/work';
import { Finder } from '../data/finder';
import { Keys } from '../data/keys';
import { Recent } from '../data/recent';
import { TextField } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { Notice } from '../ui/notice';

/** Something that is done at once, instead of gone to. */
export interface Action {
  readonly label: string;
  readonly run: () => void;
}

/** One line of what was found. */
interface Line {
  readonly label: string;
  readonly beside: string;
  readonly run: () => void;
}

const MOST = 12;

/** Go anywhere by a few letters of its name: machine, check, round, face, kit, sheet, person, page; or do something. */
@Component({
  selector: 'iso-go-to',
  imports: [Dialog, Notice, TextField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <iso-dialog heading="Go to" (closed)="closed.emit()">
      <div class="finder">
        <input
          #field
          pInputText
          type="text"
          role="combobox"
          aria-label="Go to"
          aria-expanded="true"
          aria-controls="go-to-found"
          aria-autocomplete="list"
          autocomplete="off"
          spellcheck="false"
          maxlength="100"
          placeholder="any part of a name or number"
          [attr.aria-activedescendant]="lines().length ? 'go-to-' + at() : null"
          (input)="typed.set(field.value)"
          (keydown)="key($event)"
        />
        <iso-notice [text]="problem()" />
        <ul id="go-to-found" role="listbox" aria-label="What was found">
          @for (line of lines(); track $index) {
            <li
              role="option"
              tabindex="-1"
              [id]="'go-to-' + $index"
              [class.on]="$index === at()"
              [attr.aria-selected]="$index === at()"
              (pointermove)="at.set($index)"
              (click)="go(line)"
              (keydown.enter)="go(line)"
            >
              <b>{{ line.label }}</b>&ngsp;<span>{{ line.beside }}</span>
            </li>
          } @empty {
            <li class="none">{{ typed() ? 'Nothing is called that.' : 'Type a few letters.' }}</li>
          }
        </ul>
      </div>
    </iso-dialog>
  `,
  styles: `
    .finder {
      display: grid;
      gap: 8px;
    }
    input {
      width: 100%;
    }
    ul {
      display: grid;
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 12px;
      justify-content: space-between;
      padding: 6px 8px;
      border-top: 1px solid var(--line);
      cursor: pointer;
    }
    li.on {
      background: var(--ink);
      color: var(--paper);
    }
    li b {
      font-weight: 600;
    }
    li span {
      font-size: 0.9375rem;
    }
    .none {
      cursor: default;
    }
  `,
})
export class GoTo {
  private readonly router = inject(Router);
  private readonly recent = inject(Recent);
  private readonly finder = inject(Finder);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  /** The machine that is open. */
  readonly machineId = input<string>();
  readonly actions = input<readonly Action[]>([]);
  readonly closed = output<void>();

  private readonly field = viewChild.required<ElementRef<HTMLInputElement>>('field');
  protected readonly typed = signal('');
  protected readonly problem = signal('');
  private readonly everything = toSignal(this.finder.all$, { requireSync: true });

  /** All that can be gone to, and screens of before that have no name of their own. */
  private readonly index = computed(() => {
    const all = this.everything();
    const known = all ? findablesOf(all) : [];
    const paths = new Set(known.map(({ path }) => path));
    const visited = this.recent.all().flatMap(({ path, words }) => {
      const name = folded(words);
      return paths.has(path) ? [] : [{ kind: 'page' as const, label: words, beside: 'looked at lately', path, name, all: name }];
    });
    return [...known, ...visited];
  });

  protected readonly lines = computed((): readonly Line[] => {
    const typed = this.typed();
    const here = this.router.url.split(/[?#]/)[0];
    const lately = this.recent.all().flatMap(({ path }) => (path === here ? [] : [path]));
    const things = found(this.index(), typed, { lately, machineId: this.machineId() }, MOST).map((thing) => this.lineOf(thing));
    return [...things, ...this.doing(typed)].slice(0, MOST + 3);
  });
  /** The line that Enter takes. */
  protected readonly at = linkedSignal({ source: this.typed, computation: () => 0 });

  constructor() {
    this.finder.load().subscribe({ error: ({ message }: Error) => this.problem.set(message) });
    const keys = inject(Keys);
    afterNextRender(() => {
      const field = this.field().nativeElement;
      field.focus();
      field.value = keys.fieldIsHere();
      this.typed.set(field.value);
    });
    afterRenderEffect(() => this.host.nativeElement.querySelector(`#go-to-${this.at()}`)?.scrollIntoView({ block: 'nearest' }));
  }

  private lineOf({ label, beside, path }: Findable): Line {
    return { label, beside, run: () => void this.router.navigateByUrl(path) };
  }

  /** What can be done, and the search in all that was written. */
  private doing(typed: string): Line[] {
    const words = folded(typed).split(/\s+/).filter(Boolean);
    if (words.length === 0) return [];
    const fits = this.actions().filter(({ label }) => words.every((word) => folded(label).includes(word)));
    const queryParams = { words: typed.trim() };
    return [
      ...fits.map(({ label, run }): Line => ({ label, beside: 'do it', run })),
      {
        label: `“${typed.trim()}”`,
        beside: 'in all that was written',
        run: () => void this.router.navigate(['/logbook'], { queryParams }),
      },
    ];
  }

  protected key(event: KeyboardEvent): void {
    const [many, step] = [this.lines().length, { ArrowDown: 1, ArrowUp: -1 }[event.key]];
    if (step !== undefined && many > 0) {
      event.preventDefault();
      this.at.update((at) => (at + step + many) % many);
    }
    const line = this.lines()[this.at()];
    if (event.key !== 'Enter' || !line) return;
    event.preventDefault();
    // The key is used up here: the screen that comes must not have it.
    event.stopPropagation();
    this.go(line);
  }

  protected go(line: Line): void {
    this.closed.emit();
    line.run();
  }
}
