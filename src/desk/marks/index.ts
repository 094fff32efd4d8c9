/** The desk's drawings. */
export * from './marks';
