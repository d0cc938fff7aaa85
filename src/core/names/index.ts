export { type DomainName, type NameRules, parseDomainName } from './domainName';
export { readHosts } from './hosts';
export { lookAlikeWarning } from './lookAlike';
export { nearSpellings } from './nearSpellings';
export { type PastedName, splitNames } from './splitNames';
