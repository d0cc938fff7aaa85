import { type Amount, convert, type Rate, sumIn } from '@/core/money';
import { type DatedMoney, type NetProceeds, netProceedsOf, saleFees, yearlyReturn } from '@/core/selling';
import { DAY_MS, type Day, dayOf, startOfDay } from '@/core/time';
import { type EntryRow, selectCostsOfSales, selectEntries } from '@/database/entries';
import { selectMarketplace } from '@/database/marketplaces';
import { selectRates } from '@/database/rates';
import { type SaleRow, type SaleStepRow, selectSale, selectSaleSteps, selectSales } from '@/database/sales';
import { selectSettings } from '@/database/settings';
import type { Deps } from '../deps';

/** A sale with everything that its statement shows, and where each figure comes from. */
export interface Statement {
  readonly sale: SaleRow;
  readonly steps: readonly SaleStepRow[];
  /** `null` when what the marketplace keeps is not known: a rate is missing. */
  readonly net: NetProceeds | null;
  /** Commission and fees are what the marketplace told; else what its rules come to. */
  readonly told: boolean;
  /** Every entry of the name before the sale's own. */
  readonly costs: readonly EntryRow[];
  /** The sum of the costs in the currency of the sale; `null` where a rate is missing. */
  readonly cost: Amount | null;
  readonly profit: Amount | null;
  readonly yearlyReturn: number | null;
  readonly heldDays: number | null;
  /** Rates that were used, by the currency of the costs. */
  readonly rates: readonly Rate[];
}

export async function statementOf(deps: Deps, saleId: number): Promise<Statement | null> {
  const sale = await selectSale(deps.database, saleId);
  if (!sale) return null;
  const [steps, entries, rates, marketplace] = await Promise.all([
    selectSaleSteps(deps.database, saleId),
    selectEntries(deps.database, sale.nameId),
    selectRates(deps.database),
    sale.marketplaceId === null ? null : selectMarketplace(deps.database, sale.marketplaceId),
  ]);
  const told = steps.some(({ stage, origin }) => stage === 'done' && origin === 'marketplace');
  const fees = saleFees(marketplace, null, sale.currency, rates, sale.agreedAt);
  const net: NetProceeds | null = keptAsTold(sale) ?? (fees && netProceedsOf(sale.priceMinor, fees));
  const costs = entries.filter(({ kind, saleId: belongsTo }) => kind !== 'sale' && belongsTo === null);
  return { sale, steps, net, told, costs, rates, ...resultOf(sale, net, costs, rates, dayOf(deps.clock())) };
}

/** What a sale left by what was kept of it; `null` while that has not been told or booked. */
function keptAsTold({ priceMinor, commissionMinor, feesMinor }: SaleRow): NetProceeds | null {
  if (commissionMinor === null) return null;
  const fees = feesMinor ?? 0;
  return { priceMinor, commissionMinor, feesMinor: fees, proceedsMinor: priceMinor - commissionMinor - fees };
}

/** Cost, profit and return of a sale: each entry converted at the rate of its own day. */
function resultOf(
  sale: Pick<SaleRow, 'currency' | 'stage' | 'stageSince'>,
  net: NetProceeds | null,
  costs: readonly Pick<EntryRow, 'minor' | 'currency' | 'onDay'>[],
  rates: readonly Rate[],
  today: Day,
): Pick<Statement, 'cost' | 'profit' | 'yearlyReturn' | 'heldDays'> {
  const soldOn = sale.stage === 'done' ? dayOf(sale.stageSince) : today;
  const money: DatedMoney[] = [];
  for (const { minor, currency, onDay } of costs) {
    const converted =
      convert({ minor, currency }, sale.currency, rates, onDay) ??
      convert({ minor, currency }, sale.currency, rates, soldOn);
    if (converted === null) return { cost: null, profit: null, yearlyReturn: null, heldDays: null };
    money.push({ day: onDay, minor: -converted.minor });
  }
  const costMinor = -money.reduce((sum, { minor }) => sum + minor, 0);
  const first = money.map(({ day }) => day).sort()[0];
  return {
    cost: { minor: costMinor, currency: sale.currency },
    profit: net && { minor: net.proceedsMinor - costMinor, currency: sale.currency },
    yearlyReturn: net && yearlyReturn([...money, { day: soldOn, minor: net.proceedsMinor }]),
    heldDays: first === undefined ? null : Math.round((startOfDay(soldOn) - startOfDay(first)) / DAY_MS),
  };
}

/** A sale that is done, as a line of the sold list. */
export interface SoldLine {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly marketplace: string;
  readonly buyer: string;
  readonly soldOn: Day;
  readonly price: Amount;
  /** `null` when what the marketplace kept is not known. */
  readonly proceeds: Amount | null;
  readonly profit: Amount | null;
  readonly yearlyReturn: number | null;
  readonly heldDays: number | null;
}

/** A sum of the sold list: of a year, an ending, a marketplace, or a currency. In the home currency at the rates of the sales' days. */
export interface SoldTotal {
  readonly by: 'year' | 'ending' | 'marketplace' | 'currency';
  readonly key: string;
  readonly count: number;
  readonly proceeds: Amount | null;
  readonly profit: Amount | null;
}

export interface SoldList {
  readonly lines: readonly SoldLine[];
  readonly totals: readonly SoldTotal[];
  readonly homeCurrency: string;
}

export async function soldList(deps: Deps): Promise<SoldList> {
  const [sales, rates, { homeCurrency }] = await Promise.all([
    selectSales(deps.database),
    selectRates(deps.database),
    selectSettings(deps.database),
  ]);
  const done = sales.filter(({ stage }) => stage === 'done');
  const costs = await selectCostsOfSales(
    deps.database,
    done.map(({ id }) => id),
  );
  const lines = done.map((sale): SoldLine => {
    const net = keptAsTold(sale);
    const soldOn = dayOf(sale.stageSince);
    const { profit, yearlyReturn: rate, heldDays } = resultOf(sale, net, costs.get(sale.id) ?? [], rates, soldOn);
    return {
      id: sale.id,
      ascii: sale.ascii,
      unicode: sale.unicode,
      ending: sale.ascii.slice(sale.ascii.indexOf('.') + 1),
      marketplace: sale.marketplace ?? 'the office',
      buyer: sale.buyer,
      soldOn,
      price: { minor: sale.priceMinor, currency: sale.currency },
      proceeds: net && { minor: net.proceedsMinor, currency: sale.currency },
      profit,
      yearlyReturn: rate,
      heldDays,
    };
  });
  return { lines, totals: totalsOf(lines, homeCurrency, rates), homeCurrency };
}

function totalsOf(lines: readonly SoldLine[], home: string, rates: readonly Rate[]): SoldTotal[] {
  const keys: readonly [SoldTotal['by'], (line: SoldLine) => string][] = [
    ['year', ({ soldOn }) => soldOn.slice(0, 4)],
    ['ending', ({ ending }) => `.${ending}`],
    ['marketplace', ({ marketplace }) => marketplace],
    ['currency', ({ price }) => price.currency],
  ];
  return keys.flatMap(([by, keyOf]) => {
    const groups = new Map<string, SoldLine[]>();
    for (const line of lines) groups.set(keyOf(line), [...(groups.get(keyOf(line)) ?? []), line]);
    return [...groups]
      .sort(([a], [b]) => (a < b ? -1 : 1))
      .map(([key, group]): SoldTotal => {
        const inHome = (amounts: readonly (Amount | null)[]) => {
          const converted = group.map((line, i) => {
            const amount = amounts[i];
            return amount ? convert(amount, home, rates, line.soldOn) : null;
          });
          return converted.some((one) => one === null)
            ? null
            : sumIn(converted as Amount[], home, rates, lines[0]?.soldOn as Day);
        };
        return {
          by,
          key,
          count: group.length,
          proceeds: inHome(group.map(({ proceeds }) => proceeds)),
          profit: inHome(group.map(({ profit }) => profit)),
        };
      });
  });
}
