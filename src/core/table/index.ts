export { type Arrangement, byPlace, inOrder, type Places, ranksOf } from './arrangement';
export { Dictionary, Growing } from './growing';
export { packed, unpacked } from './packed';
export { Spellings } from './spellings';
