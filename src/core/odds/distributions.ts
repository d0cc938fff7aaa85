/**
 * The standard normal quantile of a share between 0 and 1 (both excluded), to about 1e-15 of its value.
 * Source: Wichura 1988, algorithm AS 241 (PPND16), Applied Statistics 37.
 */
export function normalQuantile(share: number): number {
  const q = share - 0.5;
  if (Math.abs(q) <= 0.425) {
    const r = 0.180625 - q * q;
    return (q * ratio(r, CENTRE)) as number;
  }
  const r = Math.sqrt(-Math.log(q < 0 ? share : 1 - share));
  const far = r <= 5 ? ratio(r - 1.6, MIDDLE) : ratio(r - 5, TAIL);
  return q < 0 ? -far : far;
}

type Ratio = readonly [readonly number[], readonly number[]];

/** A ratio of two polynomials; highest power last. */
function ratio(x: number, [above, below]: Ratio): number {
  let [p, q] = [0, 0];
  for (let i = 7; i >= 0; i -= 1) {
    p = p * x + (above[i] as number);
    q = q * x + (below[i] as number);
  }
  return p / q;
}

const CENTRE: Ratio = [
  [
    3.3871328727963665, 133.14166789178438, 1971.5909503065513, 13731.69376550946, 45921.95393154987, 67265.7709270087,
    33430.57558358813, 2509.0809287301227,
  ],
  [
    1, 42.31333070160091, 687.1870074920579, 5394.196021424751, 21213.794301586597, 39307.89580009271,
    28729.085735721943, 5226.495278852546,
  ],
];
const MIDDLE: Ratio = [
  [
    1.4234371107496835, 4.630337846156546, 5.769497221460691, 3.6478483247632045, 1.2704582524523684,
    0.2417807251774506, 0.022723844989269184, 0.0007745450142783414,
  ],
  [
    1, 2.053191626637759, 1.6763848301838038, 0.6897673349851, 0.14810397642748008, 0.015198666563616457,
    0.0005475938084995345, 1.0507500716444169e-9,
  ],
];
const TAIL: Ratio = [
  [
    6.657904643501103, 5.463784911164114, 1.7848265399172913, 0.29656057182850487, 0.026532189526576124,
    0.0012426609473880784, 2.7115555687434876e-5, 2.0103343992922881e-7,
  ],
  [
    1, 0.599832206555888, 0.1369298809227358, 0.014875361290850615, 0.0007868691311456133, 1.8463183175100548e-5,
    1.421511758316446e-7, 2.0442631033899397e-15,
  ],
];

/** The standard normal distribution function, by the incomplete gamma function: Φ(x) = (1 ± P(½, x²/2)) / 2. */
export function normalCdf(x: number): number {
  if (x === Number.POSITIVE_INFINITY) return 1;
  if (x === Number.NEGATIVE_INFINITY) return 0;
  const half = 0.5 * (x * x);
  return x < 0 ? 0.5 * gammaAbove(0.5, half) : 1 - 0.5 * gammaAbove(0.5, half);
}

/** The probability that a gamma variable of shape `a` (above 0) and rate 1 lies at or below `x`: the regularised P(a, x). */
export function gammaCdf(x: number, a: number): number {
  return 1 - gammaAbove(a, x);
}

const MOST_TERMS = 10_000;
const ENOUGH = 1e-16;

/** Q(a, x) = 1 − P(a, x): by its series below a + 1, by Lentz's continued fraction above (DLMF 8.7.1 and 8.9.2). */
function gammaAbove(a: number, x: number): number {
  if (x <= 0) return 1;
  if (x === Number.POSITIVE_INFINITY) return 0;
  const scale = Math.exp(a * Math.log(x) - x - logGamma(a));
  if (x < a + 1) {
    let [term, sum] = [1 / a, 1 / a];
    for (let n = 1; n < MOST_TERMS && term > sum * ENOUGH; n += 1) {
      term *= x / (a + n);
      sum += term;
    }
    return 1 - scale * sum;
  }
  let b = x + 1 - a;
  let c = 1e300;
  let d = 1 / b;
  let fraction = d;
  for (let n = 1; n < MOST_TERMS; n += 1) {
    const step = -n * (n - a);
    b += 2;
    d = 1 / (step * d + b);
    c = b + step / c;
    fraction *= d * c;
    if (Math.abs(d * c - 1) < ENOUGH * 10) break;
  }
  return scale * fraction;
}

/** ln Γ(½), which every value of the normal distribution asks for. */
const HALF_LOG_PI = 0.5 * Math.log(Math.PI);

/** ln Γ(a) for a above 0: Stirling's series (DLMF 5.11.1) from 15 on, and the recurrence below. */
function logGamma(a: number): number {
  if (a === 0.5) return HALF_LOG_PI;
  let shift = 0;
  let x = a;
  for (; x < 15; x += 1) shift += Math.log(x);
  const inverse = 1 / (x * x);
  const series =
    (1 / 12 - inverse * (1 / 360 - inverse * (1 / 1260 - inverse * (1 / 1680 - (inverse * 1) / 1188)))) / x;
  return (x - 0.5) * Math.log(x) - x + 0.5 * Math.log(2 * Math.PI) + series - shift;
}

/** The quantile of a gamma variable of shape `a` (above 0) and `rate` at a share between 0 and 1, by halving. */
export function gammaQuantile(share: number, a: number, rate: number): number {
  let [low, high] = [0, Math.max(1, 2 * a)];
  while (gammaCdf(high, a) < share) high *= 2;
  for (let i = 0; i < 200 && high - low > 1e-14 * high; i += 1) {
    const middle = (low + high) / 2;
    if (gammaCdf(middle, a) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2 / rate;
}

/** The density of a gamma variable of shape `a` and `rate` at `x`. */
export function gammaDensity(x: number, a: number, rate: number): number {
  if (x <= 0) return a === 1 && x === 0 ? rate : 0;
  return Math.exp(a * Math.log(rate) + (a - 1) * Math.log(x) - rate * x - logGamma(a));
}
