import type * as chrome from 'selenium-webdriver/chrome';
import type { Visitor } from './browser';

/** Takes the network away from a browser, or gives it back. */
export const withoutNetwork = ({ driver }: Visitor, offline: boolean): Promise<void> =>
  (driver as chrome.Driver).setNetworkConditions({
    offline,
    latency: 0,
    download_throughput: 0,
    upload_throughput: 0,
  });
