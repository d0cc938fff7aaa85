export { type Asker, COMMANDS, type Command, isInScope, mayRole, refuseCommand } from './access';
export { callerAddress, plainAddress } from './callerAddress';
export { type Weighed, type Weight, weigh } from './secondPerson';
export { isFresh, isSessionOpen, SESSION, type SessionTimes, sessionEnd } from './sessions';
export { AREAS, type Area, isMember, type Member, ROLES, type Role, type Who } from './who';
