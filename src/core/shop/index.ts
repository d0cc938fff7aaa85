export * from './buyer';
export * from './languages';
export * from './letter';
export * from './place';
export * from './say';
export * from './texts';
export * from './visits';
