import AxeBuilder from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** What is wrong with a control, as a line a person can act on. */
export type Finding = string;

/**
 * Looks at every control that is on the screen, as a user would reach it: inside the window, not covered, named by what it shows,
 * large enough to press, its text not cut off. What lies in something that scrolls is scrolled to first.
 * @param within only what lies in there, as when a dialog is open
 */
export async function audit(page: Page, where: string, within = 'body'): Promise<Finding[]> {
  return page.evaluate(
    ([place, scope]) => {
      const findings: string[] = [];
      const SELECTOR =
        'button, a[href], input:not([type=hidden]), select, textarea, [role=button], [role=slider], [role=tab], [role=option], [role=menuitem], [role=separator][tabindex], [tabindex="0"]';
      const SMALL = 23.5;
      const all = [...document.querySelectorAll<HTMLElement>(`${scope} :is(${SELECTOR})`)];
      const shown = (element: Element): boolean => {
        const box = element.getBoundingClientRect();
        return (
          box.width > 1 &&
          box.height > 1 &&
          element.checkVisibility({ opacityProperty: false, visibilityProperty: true }) &&
          !element.closest('[inert], [aria-hidden=true]')
        );
      };
      const nameOf = (element: HTMLElement): string => {
        const label = element.getAttribute('aria-label');
        const by = element.getAttribute('aria-labelledby');
        const labels = (element as HTMLInputElement).labels;
        return (
          label ||
          (by &&
            by
              .split(' ')
              .map((id) => document.getElementById(id)?.textContent ?? '')
              .join(' ')) ||
          (labels?.length ? [...labels].map((item) => item.textContent).join(' ') : '') ||
          element.textContent ||
          element.getAttribute('title') ||
          ''
        ).trim();
      };
      const plain = (text: string) =>
        text
          .toLowerCase()
          .replace(/[\s…▾]+/g, ' ')
          .trim();
      for (const element of all) {
        if (!shown(element)) continue;
        // a field's own outline is drawn by what it lies in; a svg grip is as large as its room
        const disabled = (element as HTMLButtonElement).disabled || element.getAttribute('aria-disabled') === 'true';
        const field = element.closest<HTMLElement>('.v-field, .v-selection-control, .v-list-item');
        const target = field && field !== element && element.matches('input') ? field : element;
        const name = nameOf(element) || (field ? nameOf(field) : '');
        const what = `${place}: ${element.tagName.toLowerCase()}${element.getAttribute('role') ? `[${element.getAttribute('role')}]` : ''} “${name.slice(0, 50) || element.outerHTML.slice(0, 90)}”`;
        if (!name) findings.push(`${what} has no name`);
        const text = element.matches('button, a') ? plain((element as HTMLElement).innerText ?? '') : '';
        if (text && element.getAttribute('aria-label') && !plain(name).includes(text))
          findings.push(`${what} shows “${text}”, which is not in its name`);
        const onPicture = !!element.closest('svg[role=group], .stage svg');
        if (!onPicture) target.scrollIntoView({ block: 'nearest', inline: 'nearest' });
        const box = target.getBoundingClientRect();
        if (box.right > innerWidth + 1 || box.left < -1 || box.bottom > innerHeight + 1 || box.top < -1) {
          // what is on the picture or in time may lie beyond what is shown of those
          if (!onPicture && !element.closest('.track, .ruler'))
            findings.push(
              `${what} is outside the window (${[box.left, box.top, box.right, box.bottom].map(Math.round).join(' ')})`,
            );
          continue;
        }
        const slim =
          element.matches(
            '[role=separator], [role=slider], .bar, input[type=range], .marker, .key, input[type=checkbox], [role=option] *',
          ) || !!element.closest('.track, .ruler');
        if (!slim && !disabled && !onPicture && (box.width < SMALL || box.height < SMALL))
          findings.push(`${what} is ${Math.round(box.width)}×${Math.round(box.height)} px`);
        const [x, y] = [
          Math.min(innerWidth - 1, Math.max(0, box.left + box.width / 2)),
          Math.min(innerHeight - 1, Math.max(0, box.top + box.height / 2)),
        ];
        const top = document.elementFromPoint(x, y);
        const own =
          top &&
          (target.contains(top) ||
            top.contains(target) ||
            element.contains(top) ||
            (element as HTMLInputElement).labels?.[0]?.contains(top));
        if (!own && !onPicture && !element.closest('.track, .ruler, .sheet .label'))
          findings.push(
            `${what} is covered by ${top ? `${top.tagName.toLowerCase()}.${[...top.classList].join('.')}` : 'nothing'}`,
          );
        if (element.matches('button, a, .v-btn, label') && text) {
          const style = getComputedStyle(element);
          const cut = element.scrollWidth > element.clientWidth + 2 || element.scrollHeight > element.clientHeight + 3;
          if (
            cut &&
            style.overflow !== 'visible' &&
            !(
              style.textOverflow === 'ellipsis' &&
              (element.title || element.getAttribute('aria-label') || element.textContent)
            )
          )
            findings.push(
              `${what} has its text cut off (${element.scrollWidth}×${element.scrollHeight} in ${element.clientWidth}×${element.clientHeight})`,
            );
        }
      }
      if (document.documentElement.scrollWidth > innerWidth + 1)
        findings.push(`${place}: the page is wider than the window`);
      return [...new Set(findings)];
    },
    [where, within] as const,
  );
}

/** Collects findings through a crawl and tells them all at its end. */
export class Crawl {
  readonly findings: Finding[] = [];
  /** @param rules of the accessibility checker that are used; all of them when null */
  constructor(
    private readonly page: Page,
    private readonly rules: string[] | null = null,
  ) {}

  /** What an accessibility checker finds. */
  async axe(where: string, within?: string): Promise<void> {
    const axe = new AxeBuilder({ page: this.page }).options({
      resultTypes: ['violations'],
      ...(this.rules ? { runOnly: this.rules } : {}),
    });
    const { violations } = await (within ? axe.include(within) : axe).analyze();
    for (const { id, nodes } of violations)
      this.findings.push(
        `${where}: ${id} ${nodes
          .slice(0, 4)
          .map((node) => node.html.slice(0, 120))
          .join(' | ')}`,
      );
  }
  async lookClosely(where: string): Promise<void> {
    await this.look(where);
    await this.axe(where);
  }

  async look(where: string, within?: string): Promise<void> {
    // what comes and goes by itself has come or gone
    await this.page.waitForFunction(
      () => !document.querySelector('[class*="-enter-active"], [class*="-leave-active"]'),
    );
    await this.page.evaluate(() =>
      Promise.all(
        document
          .getAnimations()
          .filter((motion) => motion.effect?.getComputedTiming().iterations !== Infinity)
          .map((motion) => motion.finished.catch(() => undefined)),
      ),
    );
    this.findings.push(...(await audit(this.page, where, within)));
  }

  /** Opens something that lies above the page, looks at it, and closes it by Escape. */
  async overlay(where: string, open: () => Promise<unknown>, also = () => Promise.resolve()): Promise<void> {
    await open();
    const overlay = this.page.locator('.v-overlay--active > .v-overlay__content').last();
    await expect(overlay).toBeVisible();
    await this.look(where, '.v-overlay--active');
    await also();
    await this.page.keyboard.press('Escape');
    await expect(
      this.page.locator('.v-overlay--active:not(.v-tooltip) > .v-overlay__content'),
      `${where}: Escape closes it`,
    ).toHaveCount(0);
  }

  end(): void {
    expect(this.findings.join('\n')).toBe('');
  }
}
