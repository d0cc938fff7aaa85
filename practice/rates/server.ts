import { createServer, type Server } from 'node:http';
import { DAY } from '../world/calendar';
import type { World } from '../world/types';

/** What one euro is worth in the practice world, about; it sways by a few in a thousand from day to day. */
const ABOUT: Readonly<Record<string, number>> = { USD: 1.0865, GBP: 0.8342, JPY: 161.25, CHF: 0.9418, SEK: 11.204 };

/** The working day up to a time: banks publish none at weekends. */
function workingDay(now: number): number {
  const day = Math.floor(now / DAY);
  // The first of January 1970 was a Thursday.
  const weekday = (day + 4) % 7;
  return day - (weekday === 0 ? 2 : weekday === 6 ? 1 : 0);
}

/** The reference rates of the day in XML: nested `Cube` elements with a time, then a currency and a rate to each. */
export function dailyRates(now: number): string {
  const day = workingDay(now);
  const rates = Object.entries(ABOUT).map(([currency, about], i) => {
    const sway = 1 + 0.004 * Math.sin(day / 3 + i);
    return `<Cube currency="${currency}" rate="${(about * sway).toFixed(4)}"/>`;
  });
  const time = new Date(day * DAY).toISOString().slice(0, 10);
  return `<?xml version="1.0" encoding="UTF-8"?>\n<Envelope><Cube><Cube time="${time}">${rates.join('')}</Cube></Cube></Envelope>\n`;
}

/** A practice central bank: `GET /daily.xml`. */
export function ratesServer(world: World): Server {
  return createServer(({ method, url }, answer) => {
    if (method !== 'GET' || url !== '/daily.xml') answer.writeHead(404).end();
    else answer.writeHead(200, { 'content-type': 'application/xml' }).end(dailyRates(world.now));
  });
}
