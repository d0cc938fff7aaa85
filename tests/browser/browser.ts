import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Result } from 'axe-core';
import { Browser, Builder, By, Key, logging, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome.js';

const FLAGS = [
  '--headless=new',
  '--no-sandbox',
  '--disable-dev-shm-usage',
  '--disable-gpu',
  '--hide-scrollbars',
  '--force-device-scale-factor=1',
  '--window-size=1280,960',
  '--lang=en-GB',
  '--no-first-run',
  '--no-default-browser-check',
  '--disable-extensions',
  '--disable-sync',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-default-apps',
  '--metrics-recording-only',
  '--no-pings',
  '--disable-features=Translate,OptimizationHints,MediaRouter,AutofillServerCommunication',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1 , EXCLUDE localhost',
  '--password-store=basic',
  '--use-mock-keychain',
];

/**
 * Marks what stands beside three others that are drawn exactly like it: rows of one kind in a long table. A look at all of them takes most of
 * the time and finds what it found in the first three; `SOAK=1` looks at all.
 */
const MARK_ALIKE = `
  for (const one of document.querySelectorAll('[data-alike]')) one.removeAttribute('data-alike');
  const looks = new Map();
  const lookOf = (one) => {
    const known = looks.get(one);
    if (known !== undefined) return known;
    const attributes = one.getAttributeNames().filter((name) => !['id', 'href', 'd', 'x', 'y', 'cx', 'cy', 'width', 'transform'].includes(name))
      .map((name) => /^(class|role|type|scope|tabindex)$/.test(name) ? name + '=' + one.getAttribute(name) : name);
    const colours = one.style ? [one.style.color, one.style.background, one.style.fill] : [];
    const look = [one.tagName, attributes, colours, [...one.children].map(lookOf)].join('|');
    looks.set(one, look);
    return look;
  };
  for (const parent of document.querySelectorAll('body *')) {
    if (parent.children.length < 4 || parent.closest('[data-alike]')) continue;
    const seen = new Map();
    for (const child of parent.children) {
      const look = lookOf(child);
      const times = (seen.get(look) ?? 0) + 1;
      seen.set(look, times);
      if (times > 3) child.setAttribute('data-alike', '');
    }
  }`;

/** Half as long as the source that the package hands out: it goes into every page that is looked at. */
const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** The findings alone: where a rule holds nobody asks for the elements. */
const RUN_AXE = `
  const [rules, done] = arguments;
  const options = { preload: false, resultTypes: ['violations'], ...(rules ? { runOnly: { type: 'rule', values: rules } } : {}) };
  axe.run({ exclude: [['[data-alike]']] }, options).then(({ violations }) => done(violations), (cause) => done(String(cause)));`;

/** The first element at an XPath that is shown: one question to the browser, since it is asked again and again while something is waited for. */
const FIRST_SHOWN = `
  const found = document.evaluate(arguments[0], document, null, XPathResult.ORDERED_NODE_ITERATOR_TYPE, null);
  for (let one = found.iterateNext(); one; one = found.iterateNext())
    if (one.checkVisibility({ opacityProperty: true, visibilityProperty: true })) return one;
  return null;`;

/** What the element that has the focus is called, much as a screen reader would say it. */
const FOCUSED = `
  const one = document.activeElement;
  if (!one || one === document.body) return '';
  const by = document.getElementById((one.getAttribute('aria-labelledby') ?? '').split(' ')[0]);
  const name = one.getAttribute('aria-label') || (by ?? one.labels?.[0] ?? one.closest('label') ?? one).textContent;
  return name.replace(/\\s+/g, ' ').trim();`;

/** More presses of Tab than any page has stops. */
const MOST_TABS = 200;

/** A person at a browser: what they press, type and see. */
export interface Visitor {
  readonly driver: WebDriver;
  go(path: string): Promise<void>;
  /** The element that holds this text, once it is there. */
  see(text: string): Promise<WebElement>;
  /** Clicks what holds this text. */
  click(text: string): Promise<void>;
  /** Presses the button, link or labelled control of this name. */
  press(name: string): Promise<void>;
  /** Chooses the row of the ledger that shows this name. */
  pick(name: string): Promise<void>;
  /** The text field with this label. */
  field(label: string): Promise<WebElement>;
  fill(label: string, text: string): Promise<void>;
  /** Chooses one option of a labelled choice. */
  choose(label: string, option: string): Promise<void>;
  /** Presses keys, one after the other, or together as a `Key.chord`. */
  keys(...keys: string[]): Promise<void>;
  /** Presses Tab until what has the focus has a name that begins so; nothing where it has already. */
  tabTo(name: string): Promise<void>;
  /** Goes there by Tab, and presses Enter. */
  pressByKey(name: string): Promise<void>;
  /** Waits until the text is gone. */
  gone(text: string): Promise<void>;
  text(css: string): Promise<string>;
  picture(file: string): Promise<void>;
  /** A command of the browser's developer tools: another window, another language. */
  tell(command: string, parameters: object): Promise<void>;
  /** Accessibility findings on the page as it is, one line each. */
  axe(rules?: readonly string[]): Promise<string[]>;
  /** Errors that the console has told of since last asked. */
  consoleErrors(): Promise<string[]>;
  close(): Promise<void>;
}

/** Of a page that shows something else, so many letters stand in the failure. */
const MOST_SAID = 3000;
/** Longer than any page takes: a machine that others use too may stand still for as long as half a minute. */
const WAIT_MS = 60_000;
/** A page answers within a few frames; the driver itself would look five times a second. */
const LOOK_AGAIN_MS = 40;
/** What takes longer is looked for less often: each look costs the page some of the time that it is waited for. */
const [SOON_MS, SELDOM_MS] = [1500, 160];
const quoted = (text: string) => (text.includes('"') ? `'${text}'` : `"${text}"`);

/** Opens a headless browser of exactly `width` by `height` on the application at `url`. */
// biome-ignore lint/complexity/noExcessiveLinesPerFunction: one method for each thing that a visitor does
export async function openBrowser(url: string, width = 1280, height = 800): Promise<Visitor> {
  const options = new Options();
  options.setBinaryPath('/usr/bin/chromium');
  options.addArguments(...FLAGS);
  const preferences = new logging.Preferences();
  preferences.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  options.setLoggingPrefs(preferences);
  const driver = await new Builder()
    .forBrowser(Browser.CHROME)
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder('/usr/bin/chromedriver'))
    .build();
  const wait = driver.wait.bind(driver) as WebDriver['wait'];
  driver.wait = ((condition: unknown, timeout?: number, message?: string) => {
    const since = Date.now();
    const look = async () => {
      if (Date.now() - since > SOON_MS) await driver.sleep(SELDOM_MS);
      return (condition as () => unknown)();
    };
    return wait((typeof condition === 'function' ? look : condition) as never, timeout, message, LOOK_AGAIN_MS);
  }) as WebDriver['wait'];
  await driver.manage().setTimeouts({ implicit: 0, pageLoad: 60_000, script: 60_000 });
  const chromium = driver as unknown as {
    sendDevToolsCommand(command: string, parameters: object): Promise<void>;
  };
  await chromium.sendDevToolsCommand('Emulation.setDeviceMetricsOverride', {
    width,
    height,
    deviceScaleFactor: 1,
    mobile: false,
  });

  /** Waits, or fails with what the page says in place of it. */
  const waited = async <T>(condition: () => Promise<T>, what: string) => {
    try {
      return await driver.wait(condition, WAIT_MS);
    } catch (cause) {
      const text = await driver
        .findElement(By.css('body'))
        .getText()
        .catch(() => 'nothing');
      throw new Error(`${what}. The page says:\n${text.slice(0, MOST_SAID)}`, { cause });
    }
  };

  /** The first element at `xpath` that is shown; found anew each time, since the page may be drawing itself again. */
  const visible = async (xpath: string): Promise<WebElement> =>
    (await waited(
      () => driver.executeScript<WebElement | null>(FIRST_SHOWN, xpath).catch(() => null),
      `not shown: ${xpath}`,
    )) as WebElement;
  const pressable = (name: string) => {
    const is = `(normalize-space(.)=${quoted(name)} or @aria-label=${quoted(name)})`;
    return `//*[(self::button or self::a or @role='menuitem' or @role='option' or @role='checkbox' or self::label) and (${is} or (self::label and .//input[@aria-label=${quoted(name)}]))][not(@data-disabled)]`;
  };

  const holding = (text: string) =>
    `//*[contains(normalize-space(.), ${quoted(text)})][not(.//*[contains(normalize-space(.), ${quoted(text)})])][not(self::script)]`;
  /** Finds anew and clicks until it takes: the page may be drawing itself again. */
  const clickOn = async (xpath: string, what: string) => {
    await waited(async () => {
      const [element] = await driver.findElements(By.xpath(xpath));
      return element
        ? element.click().then(
            () => true,
            // It may lie under the bar at the foot: a person would scroll on.
            () =>
              driver.executeScript('arguments[0].scrollIntoView({ block: "nearest" })', element).then(
                () => false,
                () => false,
              ),
          )
        : false;
    }, `cannot click ${what}`);
  };

  const visitor: Visitor = {
    driver,
    tell: (command, parameters) => chromium.sendDevToolsCommand(command, parameters),
    go: async (path) => {
      await driver.get(url + path);
    },
    see: (text) => visible(holding(text)),
    click: (text) => clickOn(holding(text), text),
    press: (name) => clickOn(pressable(name), name),
    pick: (name) =>
      clickOn(
        `//*[@role='row'][.//*[normalize-space(.)=${quoted(name)}]]/*[@role='gridcell'][1]`,
        `the box of ${name}`,
      ),
    field: (label) =>
      visible(
        `//*[(self::input or self::textarea or self::select) and (@aria-label=${quoted(label)} or @id=//label[normalize-space(.)=${quoted(label)}]/@for or @aria-labelledby=//*[normalize-space(.)=${quoted(label)}]/@id)]`,
      ),
    fill: async (label, text) => {
      await driver.wait(
        () =>
          visitor
            .field(label)
            .then((field) => field.sendKeys(Key.chord(Key.CONTROL, 'a'), Key.BACK_SPACE, text))
            .then(
              () => true,
              () => false,
            ),
        WAIT_MS,
        `cannot fill ${label}`,
      );
    },
    choose: async (label, option) => {
      const button = await driver.wait(
        async () => {
          for (const candidate of await driver.findElements(By.css('button[aria-haspopup=listbox]'))) {
            const name = await candidate.getAccessibleName().catch(() => '');
            if (name.includes(label)) return candidate;
          }
          return null;
        },
        WAIT_MS,
        `no choice ${label}`,
      );
      await (button as WebElement).click();
      await clickOn(`//*[@role='option' and normalize-space(.)=${quoted(option)}]`, option);
    },
    keys: async (...keys) => {
      // As a keyboard sends them: whatever has the focus at each press gets it.
      const actions = driver.actions();
      for (const key of keys) {
        if (!key.endsWith(Key.NULL)) {
          actions.sendKeys(key);
          continue;
        }
        const held = [...key.slice(0, -1)];
        const pressed = held.pop() ?? '';
        for (const one of held) actions.keyDown(one);
        actions.sendKeys(pressed);
        for (const one of held) actions.keyUp(one);
      }
      await actions.perform();
    },
    tabTo: async (name) => {
      for (let presses = 0; presses < MOST_TABS; presses += 1) {
        if ((await driver.executeScript<string>(FOCUSED)).startsWith(name)) return;
        await visitor.keys(Key.TAB);
      }
      throw new Error(`Tab never comes to ${name}`);
    },
    pressByKey: async (name) => {
      await visitor.tabTo(name);
      await visitor.keys(Key.ENTER);
    },
    gone: async (text) => {
      await driver.wait(
        async () =>
          (
            await driver.findElements(
              By.xpath(`//*[contains(normalize-space(.), ${quoted(text)})][not(self::script)][not(.//*)]`),
            )
          ).length === 0,
        WAIT_MS,
        `still there: ${text}`,
      );
    },
    text: async (css) =>
      (await waited(
        // Drawn anew between the two, it is looked for again.
        async () => (await driver.findElements(By.css(css)))[0]?.getText().catch(() => null) ?? null,
        `not there: ${css}`,
      )) as string,
    picture: async (file) => writeFileSync(file, Buffer.from(await driver.takeScreenshot(), 'base64')),
    axe: async (rules) => {
      if (!(await driver.executeScript<boolean>('return window.axe !== undefined'))) await driver.executeScript(AXE);
      if (!process.env.SOAK) await driver.executeScript(MARK_ALIKE);
      const violations = await driver.executeAsyncScript<Result[] | string>(RUN_AXE, rules ?? null);
      // What went wrong in the page comes as a text.
      if (typeof violations === 'string') throw new Error(violations);
      return violations.map(
        (v) =>
          `${v.id}: ${v.help} (${v.nodes
            .map((node) => node.target.join(' '))
            .slice(0, 3)
            .join('; ')})`,
      );
    },
    consoleErrors: async () => {
      const entries = await driver.manage().logs().get(logging.Type.BROWSER);
      return entries.filter((entry) => entry.level.value >= logging.Level.WARNING.value).map((entry) => entry.message);
    },
    close: () => driver.quit(),
  };
  return visitor;
}
