import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** How many rows are left below a step, and its colour's place between flour and spruce. */
export interface SieveLevel {
  left: number;
}

const COLOURS = ['#e3d7b4', '#d9d3ae', '#bfcba9', '#9dbb9f', '#74a293', '#468073', '#1d5b50'];

/** The sieve: each step as wide as the rows that are left, its mesh finer than the one above. */
@Component({
  selector: 'cs-sieve-shape',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
  template: `
    <svg
      [attr.width]="width()"
      [attr.height]="height()"
      [attr.viewBox]="'0 0 100 ' + height()"
      preserveAspectRatio="none"
    >
      @for (tray of trays(); track $index) {
        <path [attr.d]="tray.path" [attr.fill]="tray.fill" />
        @for (hole of tray.holes; track $index) {
          <circle [attr.cx]="hole" [attr.cy]="tray.meshY" [attr.r]="tray.radius" [attr.fill]="tray.meshFill" />
        }
      }
    </svg>
  `,
  styles: `
    :host {
      display: block;
      line-height: 0;
    }
  `,
})
export class SieveShape {
  readonly levels = input.required<readonly SieveLevel[]>();
  readonly width = input(100);
  readonly mesh = input(true);
  /** Of all levels or of each, in px. */
  readonly heights = input.required<number | readonly number[]>();

  private readonly each = computed(() => {
    const heights = this.heights();
    return typeof heights === 'number' ? this.levels().map(() => heights) : heights;
  });
  protected readonly height = computed(() => this.each().reduce((sum, height) => sum + height, 0));
  protected readonly trays = computed(() => {
    const levels = this.levels();
    const most = Math.max(1, ...levels.map(({ left }) => left));
    const gap = this.mesh() ? 6 : 2;
    let next = 0;
    const half = (left: number) => Math.max(4, (left / most) * 39);
    return levels.map(({ left }, i) => {
      const top = half(levels[Math.max(0, i - 1)]!.left);
      const bottom = half(left);
      const y = next;
      next += this.each()[i]!;
      const end = next - gap;
      const radius = Math.max(0.9, 2.2 - i * 0.2);
      const spacing = radius * 3.3;
      const count = this.mesh() ? Math.floor((bottom * 2 - radius) / spacing) : 0;
      const mid = y + (end - y) * 0.5;
      return {
        path: `M${50 - top} ${y} H${50 + top} C${50 + top} ${mid} ${50 + bottom} ${mid} ${50 + bottom} ${end} H${50 - bottom} C${50 - bottom} ${mid} ${50 - top} ${mid} ${50 - top} ${y}Z`,
        fill: COLOURS[Math.round((i / Math.max(1, levels.length - 1)) * (COLOURS.length - 1))]!,
        meshY: end + gap / 2,
        radius,
        meshFill: i < 2 ? '#a8986a' : 'var(--spruce)',
        holes: Array.from({ length: count }, (_, k) => 50 + (k - (count - 1) / 2) * spacing),
      };
    });
  });
}
