import { type Figure, SALE_STAGES, type SaleStage } from '@/core/selling';
import {
  type BuyerAct,
  type BuyerView,
  buyerActs,
  buyerState,
  fill,
  type Language,
  moment,
  money,
  type ShopTexts,
  standingSaid,
  type TextKey,
  untilSaid,
} from '@/core/shop';
import type { NotTaken } from '@/usecases/shop/send';
import { Html, html } from './html';
import { amountField, messageField, nameHeading, pageOf } from './page';

/** What a buyer's page is made with. */
export interface BuyerPageMade {
  readonly language: Language;
  readonly texts: ShopTexts;
  readonly action: string;
  /** Why what he has sent could not be taken. */
  readonly problem: NotTaken | null;
  readonly amount: string;
}

const STAGES: Readonly<Partial<Record<SaleStage, TextKey>>> = {
  agreed: 'stageAgreed',
  'money held': 'stageHeld',
  'buyer known': 'stageBuyer',
  'handed over': 'stageHanded',
  arrived: 'stageArrived',
  done: 'stageDone',
};

const WRITTEN: ReadonlySet<BuyerAct> = new Set(['counter', 'raise', 'where']);

/** A buyer's own page: how it stands, what has been said, and what he may do now. */
export function buyerPage(view: BuyerView, made: BuyerPageMade): string {
  const { language, texts, problem } = made;
  const acts = buyerActs(view);
  // What is answered by a press stands together, what is written under it.
  const ordered = [...acts].sort((a, b) => Number(WRITTEN.has(a)) - Number(WRITTEN.has(b)));
  const until = untilSaid(view, texts, language);
  const isRunning = view.bid !== null && view.thread === null && view.bid.ended === 'no' && view.confirmed;
  const body = html`${nameHeading(view.name, view.name)}${view.sale !== null && stagesIn(view.sale.stage, texts)}${
    problem !== null &&
    html`<p class="wrong" role="alert">${fill(texts[problem.text], problem.said)}</p>
`
  }<p class="terms">${standingSaid(view, texts, language)}</p>
${
  until !== '' &&
  html`<p class="facts">${until}</p>
`
}${
  isRunning &&
  html`<p class="facts">${fill(texts.closesAt, { time: moment(view.bid?.closesAt ?? 0, language) })}</p>
`
}${
  !view.confirmed &&
  view.message !== '' &&
  html`<p class="description">${view.message}</p>
`
}${
  acts.length > 0 &&
  html`<div class="acts">
${ordered.map((act) => formOf(act, view, made))}</div>
`
}${view.thread !== null && html`${lineOf(view, language)}${figuresIn(view, made)}`}`;
  return pageOf(language, view.name, new Html('<meta name="robots" content="noindex">\n'), body);
}

/** The stages of the sale as a line, the one that has been reached marked. */
function stagesIn(stage: SaleStage, texts: ShopTexts): Html {
  const at = (SALE_STAGES as readonly SaleStage[]).indexOf(stage);
  if (at < 0) return new Html('');
  return html`<ol class="stages">${SALE_STAGES.map(
    (one, i) =>
      html`<li${i === at && new Html(' aria-current="step"')}${i <= at && new Html(' class="done"')}>${texts[STAGES[one] ?? 'stageAgreed']}</li>`,
  )}</ol>
`;
}

const STATES: Readonly<Record<Figure['state'], TextKey | null>> = {
  live: null,
  voided: 'figureVoided',
  accepted: 'figureAccepted',
  declined: 'figureDeclined',
  lapsed: 'figureLapsed',
};

/** What was named last by either side, on a line from nothing to the higher of them; what it shows, the list under it tells. */
function lineOf({ thread, currency }: BuyerView, language: Language): Html {
  const last = (by: 'buyer' | 'owner') => thread?.figures.findLast((one) => one.by === by)?.minor ?? null;
  const [yours, ours] = [last('buyer'), last('owner')];
  if (yours === null || ours === null) return new Html('');
  const most = Math.max(yours, ours);
  const point = (minor: number, kind: string, above: boolean) => {
    const x = Math.round(40 + (minor / most) * 500);
    return html`<g class="${kind}"><path d="M${x} ${above ? 30 : 34}v${above ? 14 : 10}"/><circle cx="${x}" cy="37" r="6"/><text x="${x}" y="${above ? 20 : 62}">${money(minor, currency, language)}</text></g>`;
  };
  return html`<svg class="line" viewBox="0 0 600 70" aria-hidden="true"><path d="M40 37H560"/>${point(yours, 'buyer', false)}${point(ours, 'owner', true)}</svg>
`;
}

/** Everything that was named, the last first. */
function figuresIn({ thread, currency }: BuyerView, { language, texts }: BuyerPageMade): Html {
  const figures = [...(thread?.figures ?? [])].reverse();
  return html`<ul class="figures">${figures.map(({ by, minor, at, state }) => {
    const key = STATES[state];
    const said = fill(by === 'buyer' ? texts.youOffered : texts.weAnswered, {
      amount: money(minor, currency, language),
    });
    return html`<li class="${by}"><b>${said}</b> <span class="facts">${moment(at, language)}${key !== null && ` · ${texts[key]}`}</span></li>`;
  })}</ul>
`;
}

function formOf(act: BuyerAct, view: BuyerView, made: BuyerPageMade): Html {
  const { texts, language, action, problem, amount } = made;
  const form = (
    inner: Html,
    label: string,
    second = false,
  ) => html`<form method="post" action="${action}"${WRITTEN.has(act) && new Html(' class="written"')}>
${inner}<p class="buttons"><button name="act" value="${act}"${second && new Html(' class="second"')}>${label}</button></p>
</form>
`;
  const figure = (label: string) =>
    amountField(
      label,
      {
        currencies: [view.currency],
        typed: amount === '' ? null : { kind: '', buyer: '', mail: '', amount, currency: '', message: '' },
        problem,
      },
      texts,
    );
  const live = view.thread?.figures.findLast(({ state }) => state === 'live');
  switch (act) {
    case 'confirm':
      return form(new Html(''), texts.confirm);
    case 'accept':
      return form(new Html(''), fill(texts.accept, { amount: money(live?.minor ?? 0, view.currency, language) }));
    case 'decline':
      return form(new Html(''), texts.decline, true);
    case 'withdraw':
      return form(new Html(''), texts.withdraw, true);
    case 'counter':
      return form(
        html`${figure(texts.another)}${messageField(texts, '')}`,
        texts.sendOffer,
        buyerState(view) === 'your turn',
      );
    case 'raise':
      return form(figure(texts.yourMost), texts.raise);
    case 'arrived':
      return form(new Html(''), texts.hasArrived);
    case 'where':
      return form(whereFields(view, texts), texts.sendWhere);
  }
}

function whereFields({ sale }: BuyerView, texts: ShopTexts): Html {
  const registrar = sale?.registrar ?? '';
  const put = (text: string) => fill(text, { registrar });
  return html`<fieldset><legend>${texts.where}</legend>
<label class="choice"><input type="radio" name="handover" value="push" required checked> ${put(texts.howPush)}</label>
<label class="choice"><input type="radio" name="handover" value="transfer"> ${texts.howTransfer}</label>
</fieldset>
<div class="if-push"><label for="account">${put(texts.whereAccount)}</label>
<input id="account" name="account" maxlength="120" autocomplete="off"></div>
<div class="if-transfer"><label for="registrar">${texts.whereRegistrar}</label>
<input id="registrar" name="registrar" maxlength="120" autocomplete="off"></div>
`;
}
