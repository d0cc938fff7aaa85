export { type DomainName, type NameRules, parseDomainName } from './domainName';
export { readHosts } from './hosts';
export { isIdnaLetter, letterNotInIdna2008 } from './idna2008';
export { lookAlikeWarning, skeletonOf } from './lookAlike';
export { nearSpellings } from './nearSpellings';
export { type PastedName, splitNames } from './splitNames';
