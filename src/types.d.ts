declare module 'xirr' {
  /** The yearly rate at which dated amounts are worth nothing together. */
  export default function xirr(flows: readonly { readonly amount: number; readonly when: Date }[]): number;
}

declare module 'class-transformer/cjs/storage' {
  export { defaultMetadataStorage } from 'class-transformer/types/storage';
}
