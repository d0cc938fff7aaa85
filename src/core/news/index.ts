export { type Proposal, proposalOf, type StandingNow } from './proposal';
export { type KnownToNews, type News, type NewsOfName, namesSpokenOf, readNews, type Told } from './readNews';
export { NEWS_KINDS, type NewsKind } from './words';
