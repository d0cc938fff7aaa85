/** Computations that read a list or play a forecast: long work by itself, which has a thread of its own and is given up after a while. */
export const LONG_WORK = ['beginImport', 'forecastNow', 'importAtOnce', 'keepForecast', 'readImport'] as const;
