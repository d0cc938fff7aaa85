export { type Asker, COMMANDS, type Command, isInScope, mayRole, refuseCommand } from './access';
export { isFresh, isSessionOpen, SESSION, type SessionTimes, sessionEnd } from './sessions';
export { AREAS, type Area, isMember, type Member, ROLES, type Role, type Who } from './who';
